package quill.server.demo;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.concurrent.locks.ReentrantLock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import quill.core.acts.ActKind;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.dailyrun.DailyRun;
import quill.server.dispatch.CallingBack;
import quill.server.dispatch.LaterLetters;
import quill.server.dispatch.Outbox;
import quill.server.notices.Notices;

/**
 * Moves the demo's clock forward, day by day: each morning announces its list, each hour of the business does it, and
 * letters leave on their day. The counting house is told. Sessions and signatures stay on the system's clock.
 */
@Component
class DemoClock {
    private static final Logger LOG = LoggerFactory.getLogger(DemoClock.class);
    private static final LocalTime EARLY = LocalTime.of(0, 5);
    private static final LocalTime LATE = LocalTime.of(23, 59);
    static final LocalTime MORNING = LocalTime.of(8, 30);

    private final ReentrantLock moving = new ReentrantLock();
    private final BusinessClock clock;
    private final DailyRun run;
    private final Outbox outbox;
    private final CallingBack callingBack;
    private final LaterLetters later;
    private final Notices notices;
    private final Changes changes;
    private final DemoAhead ahead;
    private final DemoCounting counting;
    private final KeptClock kept;

    DemoClock(
            BusinessClock clock,
            DailyRun run,
            Outbox outbox,
            Leaving leaving,
            Changes changes,
            DemoAhead ahead,
            DemoCounting counting,
            KeptClock kept) {
        this.clock = clock;
        this.run = run;
        this.outbox = outbox;
        this.callingBack = leaving.callingBack();
        this.later = leaving.later();
        this.notices = leaving.notices();
        this.changes = changes;
        this.ahead = ahead;
        this.counting = counting;
        this.kept = kept;
    }

    /** What waits to leave. */
    @Component
    record Leaving(CallingBack callingBack, LaterLetters later, Notices notices) {}

    /** What moving came to. */
    record Moved(LocalDate today, String time, int days, int fees, int reminders) {}

    /** Resumes a clock that was moved before. @return whether it was */
    boolean resume() {
        boolean moved = kept.resume();
        if (moved) {
            counting.tellDate();
        }
        return moved;
    }

    /** Forward by so many days, to the early morning before the business's hour. */
    Moved forward(int days) {
        LocalTime hour = ahead.hour();
        LocalTime arrival = MORNING.isBefore(hour) ? MORNING : EARLY;
        ZonedDateTime target = clock.today().plusDays(days).atTime(arrival).atZone(clock.getZone());
        return Happenings.byItself(() -> moveTo(target));
    }

    /** Forward to the next thing that happens by itself, or falls due. @throws ConflictException where there is none */
    Moved forwardToNext() {
        ZonedDateTime next = ahead.next();
        return Happenings.byItself(() -> moveTo(next));
    }

    private Moved moveTo(ZonedDateTime target) {
        moving.lock();
        try {
            LocalTime hour = ahead.hour();
            // The days pass at once: what could still be called back today leaves today.
            callingBack.leaveAtOnce();
            outbox.sendDue();
            int days = 0;
            int fees = 0;
            int reminders = 0;
            for (LocalDate day = clock.today(); !day.isAfter(target.toLocalDate()); day = day.plusDays(1)) {
                if (day.isAfter(clock.today())) {
                    set(day, EARLY);
                    counting.tellDate();
                    run.catchUp();
                }
                ZonedDateTime theHour = day.atTime(hour).atZone(clock.getZone());
                lettersUpTo(theHour.isAfter(target) ? target : theHour);
                if (!theHour.isAfter(target)) {
                    if (theHour.isAfter(ZonedDateTime.now(clock))) {
                        set(day, hour);
                    }
                    DailyRun.Summary sum = run.catchUp();
                    outbox.sendDue();
                    days += sum.days();
                    fees += sum.of(ActKind.FEE);
                    reminders += sum.of(ActKind.REMINDER);
                }
                ZonedDateTime night = day.atTime(LATE).atZone(clock.getZone());
                lettersUpTo(night.isAfter(target) ? target : night);
                notices.evening();
                changes.say(null, null);
            }
            kept.keep(clock.moveTo(target));
            counting.tellDate();
            run.catchUp();
            outbox.sendDue();
            changes.say(null, null);
            String time = LocalTime.now(clock).withSecond(0).withNano(0).toString();
            return new Moved(clock.today(), time, days, fees, reminders);
        } finally {
            moving.unlock();
        }
    }

    /** What leaves at a moment of its own leaves then, and says what is so then. */
    private void lettersUpTo(ZonedDateTime until) {
        for (LocalDateTime at : later.moments(LocalDateTime.now(clock), until.toLocalDateTime())) {
            set(at.toLocalDate(), at.toLocalTime());
            outbox.sendDue();
        }
    }

    /** Moves to a moment and keeps that: a demo that is ended half way resumes there. */
    void set(LocalDate day, LocalTime time) {
        kept.keep(clock.moveTo(day.atTime(time).atZone(clock.getZone())));
    }
}
