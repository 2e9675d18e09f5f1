package quill.server.demo;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClientException;
import quill.core.tax.TaxRounding;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.people.PeopleService;
import quill.server.processor.ProcessorClient;

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
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    private final QuillSettings settings;
    private final BusinessClock clock;
    private final PeopleService people;
    private final BusinessService business;
    private final ClientsService clients;
    private final DemoActs acts;
    private final ProcessorClient processor;
    private final JdbcClient jdbc;

    DemoYear(
            QuillSettings settings,
            BusinessClock clock,
            PeopleService people,
            BusinessService business,
            ClientsService clients,
            DemoActs acts,
            ProcessorClient processor,
            JdbcClient jdbc) {
        this.settings = settings;
        this.clock = clock;
        this.people = people;
        this.business = business;
        this.clients = clients;
        this.acts = acts;
        this.processor = processor;
        this.jdbc = jdbc;
    }

    /** Resumes the demo's clock, or plays the year where there is none yet. */
    @EventListener(ApplicationReadyEvent.class)
    @Order(1)
    void start() {
        if (!settings.demo()) {
            return;
        }
        var ahead = jdbc.sql("SELECT ahead_seconds FROM moved_clock WHERE id = 1")
                .query(Long.class)
                .optional();
        if (ahead.isPresent()) {
            clock.setAhead(Duration.ofSeconds(ahead.get()));
            tellProcessor();
        } else {
            play();
        }
        LOG.info("The demo is ready. Sign in as {} with: {}", EMAIL, PASSPHRASE);
    }

    private void play() {
        LOG.info("Playing a year of Larkmoor Pianos; this takes a moment …");
        moveTo(DemoScript.BEGIN);
        people.makeOwner(EMAIL, OWNER, PASSPHRASE);
        business.setUp(new Business(
                "Larkmoor Pianos",
                "Tuning · Regulation · Restoration",
                "4 Ropewalk\nLarkmoor",
                "post@larkmoor.example",
                "XX 204 117 063",
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
                1));
        String high = business.addTax("VAT 21%", "21", "S", "").id();
        String low = business.addTax("VAT 6%", "6", "S", "").id();
        Map<String, Client> byName = new LinkedHashMap<>();
        for (String[] c : DemoScript.CLIENTS) {
            byName.put(c[0], clients.make(new Client(0, c[0], c[1], c[2], c[3], "", 1)));
        }
        List<DemoScript.Act> days = new ArrayList<>(DemoScript.acts());
        days.sort(Comparator.comparing(DemoScript.Act::on));
        LocalDate told = null;
        for (DemoScript.Act act : days) {
            moveTo(act.on());
            if (!act.on().equals(told)) {
                tellProcessor();
                told = act.on();
            }
            acts.play(act, byName, high, low);
        }
        Duration ahead = moveTo(TODAY);
        tellProcessor();
        jdbc.sql("INSERT INTO moved_clock (id, ahead_seconds) VALUES (1, :ahead)")
                .param("ahead", ahead.toSeconds())
                .update();
    }

    private Duration moveTo(LocalDate date) {
        return clock.moveTo(date.atTime(LocalTime.of(9, 30)).atZone(ZONE));
    }

    private void tellProcessor() {
        try {
            if (settings.processor().isSet()) {
                processor.tellDate(clock.today());
            }
        } catch (RestClientException e) {
            LOG.warn("The counting house does not answer: {}", e.getMessage());
        }
    }
}
