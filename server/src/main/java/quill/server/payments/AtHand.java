package quill.server.payments;

import org.springframework.stereotype.Component;
import quill.server.common.BusinessClock;

/** The day, and who is told. */
@Component
record AtHand(BusinessClock clock, Telling telling) {}
