package quill.server.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import quill.server.chasing.ActView;
import quill.server.chasing.ReminderPlans;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.dailyrun.ActViews;
import quill.server.debts.OpenSums;
import quill.server.dispatch.LaterLetters;

/** When something happens next in the demo, by itself or since it falls due. */
@Component
class DemoAhead {
    private static final int FAR = 366;

    private final ActViews acts;
    private final ReminderPlans plans;
    private final OpenSums sums;
    private final LaterLetters later;
    private final BusinessClock clock;

    DemoAhead(ActViews acts, ReminderPlans plans, OpenSums sums, LaterLetters later, BusinessClock clock) {
        this.acts = acts;
        this.plans = plans;
        this.sums = sums;
        this.later = later;
        this.clock = clock;
    }

    /** The hour at which the business's day is run. */
    LocalTime hour() {
        return plans.rules().plan().hour();
    }

    /** The next moment. @throws ConflictException where there is none within a year */
    ZonedDateTime next() {
        LocalDate today = clock.today();
        LocalTime hour = hour();
        ZonedDateTime now = ZonedDateTime.now(clock);
        Stream<ZonedDateTime> byItself = acts.until(today.plusDays(FAR)).stream()
                .filter(a -> a.stop().equals("NOTHING"))
                .map(ActView::on)
                .map(d -> d.atTime(hour).plusMinutes(1).atZone(clock.getZone()));
        Stream<ZonedDateTime> due = sums.nextDueAfter(today).stream()
                .map(d -> d.atTime(hour).plusMinutes(1).atZone(clock.getZone()));
        Stream<ZonedDateTime> letters =
                later.waiting().stream().map(m -> m.leaves().at().plusMinutes(1).atZone(clock.getZone()));
        return Stream.concat(Stream.concat(byItself, due), letters)
                .filter(t -> t.isAfter(now))
                .min(ZonedDateTime::compareTo)
                .orElseThrow(() -> new ConflictException("Nothing happens by itself or falls due within a year."));
    }
}
