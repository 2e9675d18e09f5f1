package quill.server.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Iterator;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import quill.server.QuillSettings;
import quill.server.common.BusinessClock;

/**
 * Larkmoor Pianos, a made-up workshop: its months are played through the real services on a moving clock, from a short
 * script that is the same on every start. Nothing is inserted behind their backs.
 */
@Component
class DemoYear {
    static final String OWNER = "Odile Farrant";
    static final String EMAIL = "odile@larkmoor.example";
    static final String PASSPHRASE = "felt hammers and copper strings";

    private static final Logger LOG = LoggerFactory.getLogger(DemoYear.class);
    static final ZoneId ZONE = ZoneId.of("Europe/Dublin");
    private static final LocalTime HOUR = LocalTime.of(9, 0);
    private static final LocalTime DESK = LocalTime.of(9, 30);
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    private final QuillSettings settings;
    private final BusinessClock clock;
    private final DemoActs acts;
    private final DemoClock demoClock;
    private final DemoDay day;
    private final DemoBeginning beginning;
    private final DemoCounting counting;

    DemoYear(
            QuillSettings settings,
            BusinessClock clock,
            DemoActs acts,
            DemoClock demoClock,
            DemoDay day,
            DemoBeginning beginning,
            DemoCounting counting) {
        this.settings = settings;
        this.clock = clock;
        this.acts = acts;
        this.demoClock = demoClock;
        this.day = day;
        this.beginning = beginning;
        this.counting = counting;
    }

    /** Resumes the demo's clock, or plays the year where there is none yet. */
    @EventListener(ApplicationReadyEvent.class)
    @Order(1)
    void start() {
        if (!settings.demo()) {
            return;
        }
        if (!demoClock.resume()) {
            play();
        }
        LOG.info("The demo is ready. Sign in as {} with: {}", EMAIL, PASSPHRASE);
    }

    private void play() {
        LOG.info("Playing a year of Larkmoor Pianos; this takes a moment …");
        moveTo(DemoScript.BEGIN, HOUR);
        DemoBeginning.Begun begun = beginning.set();
        counting.choosePayout();
        List<DemoScript.Act> days = new ArrayList<>(DemoScript.acts());
        days.sort(Comparator.comparing(DemoScript.Act::on));
        Iterator<DemoScript.Act> script = days.iterator();
        DemoScript.Act next = script.next();
        for (LocalDate date = DemoScript.BEGIN; date.isBefore(TODAY); date = date.plusDays(1)) {
            moveTo(date, HOUR);
            day.begin();
            moveTo(date, DESK);
            while (next != null && !next.on().isAfter(date)) {
                acts.play(next, begun);
                day.letters();
                next = script.hasNext() ? script.next() : null;
            }
            day.end(date);
        }
        demoClock.set(TODAY, DemoClock.MORNING);
        day.begin();
    }

    private void moveTo(LocalDate date, LocalTime time) {
        clock.moveTo(date.atTime(time).atZone(ZONE));
    }
}
