package quill.server.demo;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClientException;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.chasing.ActView;
import quill.server.chasing.ReminderPlans;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.OpenSums;
import quill.server.dispatch.CallingBack;
import quill.server.dispatch.Outbox;
import quill.server.processor.ProcessorClient;

/**
 * Moves the demo's clock forward, day by day: each morning announces its list, each hour of the business does it, and
 * letters leave on their day. The counting house is told. Sessions and signatures stay on the system's clock.
 */
@Component
class DemoClock {
    private static final Logger LOG = LoggerFactory.getLogger(DemoClock.class);
    private static final LocalTime EARLY = LocalTime.of(0, 5);
    static final LocalTime MORNING = LocalTime.of(8, 30);
    private static final int FAR = 366;

    private final BusinessClock clock;
    private final DailyRun run;
    private final Outbox outbox;
    private final CallingBack callingBack;
    private final ActViews acts;
    private final ReminderPlans plans;
    private final OpenSums sums;
    private final ProcessorClient processor;
    private final QuillSettings settings;
    private final Changes changes;
    private final JdbcClient jdbc;
    private final ReentrantLock moving = new ReentrantLock();

    DemoClock(
            BusinessClock clock,
            DailyRun run,
            Outbox outbox,
            CallingBack callingBack,
            ActViews acts,
            ReminderPlans plans,
            OpenSums sums,
            ProcessorClient processor,
            QuillSettings settings,
            Changes changes,
            JdbcClient jdbc) {
        this.clock = clock;
        this.run = run;
        this.outbox = outbox;
        this.callingBack = callingBack;
        this.acts = acts;
        this.plans = plans;
        this.sums = sums;
        this.processor = processor;
        this.settings = settings;
        this.changes = changes;
        this.jdbc = jdbc;
    }

    /** What moving came to. */
    record Moved(LocalDate today, String time, int days, int fees, int reminders) {}

    /** Resumes a clock that was moved before. @return whether it was */
    boolean resume() {
        Optional<Long> ahead = jdbc.sql("SELECT ahead_seconds FROM moved_clock WHERE id = 1")
                .query(Long.class)
                .optional();
        ahead.ifPresent(seconds -> clock.setAhead(Duration.ofSeconds(seconds)));
        if (ahead.isPresent()) {
            tellProcessor();
        }
        return ahead.isPresent();
    }

    /** Forward by so many days, to the early morning before the business's hour. */
    Moved forward(int days) {
        LocalTime hour = plans.rules().plan().hour();
        LocalTime arrival = MORNING.isBefore(hour) ? MORNING : EARLY;
        ZonedDateTime target = clock.today().plusDays(days).atTime(arrival).atZone(clock.getZone());
        return Happenings.byItself(() -> moveTo(target));
    }

    /** Forward to the next thing that happens by itself, or falls due. @throws ConflictException where there is none */
    Moved forwardToNext() {
        LocalDate today = clock.today();
        LocalTime hour = plans.rules().plan().hour();
        ZonedDateTime now = ZonedDateTime.now(clock);
        Stream<ZonedDateTime> byItself = acts.until(today.plusDays(FAR)).stream()
                .filter(a -> a.stop().equals("NOTHING"))
                .map(ActView::on)
                .map(d -> d.atTime(hour).plusMinutes(1).atZone(clock.getZone()));
        Stream<ZonedDateTime> due = sums.nextDueAfter(today).stream()
                .map(d -> d.atTime(hour).plusMinutes(1).atZone(clock.getZone()));
        ZonedDateTime next = Stream.concat(byItself, due)
                .filter(t -> t.isAfter(now))
                .min(ZonedDateTime::compareTo)
                .orElseThrow(() -> new ConflictException("Nothing happens by itself or falls due within a year."));
        return Happenings.byItself(() -> moveTo(next));
    }

    private Moved moveTo(ZonedDateTime target) {
        moving.lock();
        try {
            LocalTime hour = plans.rules().plan().hour();
            // The days pass at once: what could still be called back today leaves today.
            callingBack.leaveAtOnce();
            outbox.sendDue();
            int days = 0;
            int fees = 0;
            int reminders = 0;
            for (LocalDate day = clock.today(); !day.isAfter(target.toLocalDate()); day = day.plusDays(1)) {
                if (day.isAfter(clock.today())) {
                    set(day, EARLY);
                    tellProcessor();
                    run.catchUp();
                }
                ZonedDateTime theHour = day.atTime(hour).atZone(clock.getZone());
                if (!theHour.isAfter(target)) {
                    if (theHour.isAfter(ZonedDateTime.now(clock))) {
                        set(day, hour);
                    }
                    DailyRun.Summary sum = run.catchUp();
                    outbox.sendDue();
                    days += sum.days();
                    fees += sum.fees();
                    reminders += sum.reminders();
                }
                changes.say(null, null);
            }
            keep(clock.moveTo(target));
            tellProcessor();
            run.catchUp();
            outbox.sendDue();
            changes.say(null, null);
            String time = LocalTime.now(clock).withSecond(0).withNano(0).toString();
            return new Moved(clock.today(), time, days, fees, reminders);
        } finally {
            moving.unlock();
        }
    }

    /** Moves to a moment and keeps that: a demo that is ended half way resumes there. */
    void set(LocalDate day, LocalTime time) {
        keep(clock.moveTo(day.atTime(time).atZone(clock.getZone())));
    }

    private void keep(Duration ahead) {
        jdbc.sql("MERGE INTO moved_clock (id, ahead_seconds) KEY (id) VALUES (1, :ahead)")
                .param("ahead", ahead.toSeconds())
                .update();
    }

    void tellProcessor() {
        try {
            if (settings.processor().isSet()) {
                processor.tellDate(clock.today());
            }
        } catch (RestClientException e) {
            LOG.warn("The counting house does not answer: {}", e.getMessage());
        }
    }
}
