package quill.server.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import org.springframework.stereotype.Component;
import quill.server.common.BusinessClock;
import quill.server.dailyrun.DailyRun;
import quill.server.dispatch.CallingBack;
import quill.server.dispatch.Outbox;
import quill.server.notices.Notices;

/** What each day of the played year has: a run at the business's hour, letters that leave, and an evening. */
@Component
class DemoDay {
    private static final LocalTime EVENING = LocalTime.of(18, 5);
    private final DailyRun run;
    private final Outbox outbox;
    private final CallingBack callingBack;
    private final Notices notices;
    private final DemoCounting counting;
    private final BusinessClock clock;

    DemoDay(
            DailyRun run,
            Outbox outbox,
            CallingBack callingBack,
            Notices notices,
            DemoCounting counting,
            BusinessClock clock) {
        this.run = run;
        this.outbox = outbox;
        this.callingBack = callingBack;
        this.notices = notices;
        this.counting = counting;
        this.clock = clock;
    }

    void begin() {
        counting.tellDate();
        run.catchUp();
    }

    /** Letters leave on the day they are written, not when the whole year is played. */
    void letters() {
        callingBack.leaveAtOnce();
        outbox.sendDue();
    }

    void end(LocalDate day) {
        letters();
        clock.moveTo(day.atTime(EVENING).atZone(DemoYear.ZONE));
        notices.evening();
        outbox.sendDue();
    }
}
