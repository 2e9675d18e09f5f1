package quill.server.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.reminder.ReminderPlan;
import quill.core.tax.TaxRounding;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.chasing.ReminderPlans;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.dailyrun.DailyRun;
import quill.server.dispatch.Outbox;
import quill.server.latefees.FeePolicies;
import quill.server.people.PeopleService;

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
    private static final ZoneId ZONE = ZoneId.of("Europe/Dublin");
    private static final LocalTime HOUR = LocalTime.of(9, 0);
    private static final LocalTime DESK = LocalTime.of(9, 30);
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    private final QuillSettings settings;
    private final BusinessClock clock;
    private final PeopleService people;
    private final BusinessService business;
    private final ClientsService clients;
    private final DemoActs acts;
    private final DemoDocuments documents;
    private final DemoClock demoClock;
    private final DailyRun run;
    private final Outbox outbox;
    private final ReminderPlans plans;
    private final FeePolicies policies;
    private final DemoCatalogue catalogue;

    DemoYear(
            QuillSettings settings,
            BusinessClock clock,
            PeopleService people,
            BusinessService business,
            ClientsService clients,
            DemoActs acts,
            DemoDocuments documents,
            DemoClock demoClock,
            DailyRun run,
            Outbox outbox,
            ReminderPlans plans,
            FeePolicies policies,
            DemoCatalogue catalogue) {
        this.settings = settings;
        this.clock = clock;
        this.people = people;
        this.business = business;
        this.clients = clients;
        this.acts = acts;
        this.documents = documents;
        this.demoClock = demoClock;
        this.run = run;
        this.outbox = outbox;
        this.plans = plans;
        this.policies = policies;
        this.catalogue = catalogue;
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
        people.makeOwner(EMAIL, OWNER, PASSPHRASE);
        business.setUp(new Business(
                "Larkmoor Pianos",
                "Tuning · Regulation · Restoration",
                "4 Ropewalk\nLarkmoor",
                "BE",
                "post@larkmoor.example",
                "BE 0204 117 063",
                true,
                "EUR",
                ZONE.getId(),
                TaxRounding.PER_TAX,
                "XX51 LARK 0000 0004 20",
                "LARKXX20",
                "{year}-{seq}",
                "C-{year}-{seq}",
                30,
                "Thank you for trusting me with it.",
                false,
                1));
        // It keeps its books in English, though its country writes a comma.
        business.changeMark(".");
        String high = business.addTax(new BusinessService.TypedTax("VAT 21%", "21", "S", false, ""))
                .id();
        String low = business.addTax(new BusinessService.TypedTax("VAT 6%", "6", "S", false, ""))
                .id();
        documents.setUp(high, low);
        catalogue.fill(high, low);
        Map<String, Client> byName = new LinkedHashMap<>();
        for (String[] c : DemoScript.CLIENTS) {
            byName.put(c[0], clients.make(DemoScript.client(c)));
        }
        List<DemoScript.Act> days = new ArrayList<>(DemoScript.acts());
        days.sort(Comparator.comparing(DemoScript.Act::on));
        setUpChasing();
        Iterator<DemoScript.Act> script = days.iterator();
        DemoScript.Act next = script.next();
        for (LocalDate day = DemoScript.BEGIN; day.isBefore(TODAY); day = day.plusDays(1)) {
            moveTo(day, HOUR);
            demoClock.tellProcessor();
            run.catchUp();
            moveTo(day, DESK);
            while (next != null && !next.on().isAfter(day)) {
                acts.play(next, byName, high, low);
                next = script.hasNext() ? script.next() : null;
            }
            outbox.sendDue();
        }
        demoClock.set(TODAY, DemoClock.MORNING);
        demoClock.tellProcessor();
        run.catchUp();
    }

    /** Reminders as usual; 1% once after a week of grace, by itself, at most 40 on an installment. */
    private void setUpChasing() {
        plans.change(ReminderPlan.TypedPlan.usual(), 0);
        policies.change(new FeePolicies.FeeSetting(
                new TypedLateFeePolicy("percent", "1%", "7", "once", "", "40.00", "20.00", false), "10", false, 0));
    }

    private void moveTo(LocalDate date, LocalTime time) {
        clock.moveTo(date.atTime(time).atZone(ZONE));
    }
}
