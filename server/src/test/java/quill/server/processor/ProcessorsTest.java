package quill.server.processor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.WayToPay;
import quill.server.Caller;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.OrdersInTransit;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.WaysToPay;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.TestPayments;
import quill.server.people.PeopleService;
import quill.server.processor.ProcessorSettings.TypedProcessor;
import quill.server.ways.WaysService;

/** Several card processors: on trial, off and on, with credentials that nobody sees again. */
public class ProcessorsTest {
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final String HUNDRED = "EUR 100.00";
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final Map<String, Boolean> onTrial = new ConcurrentHashMap<>();
    private HttpServer outside;
    private Path folder;
    private Server server;
    private ProcessorSettings settings;
    private CardOrders orders;
    private ClientId client;
    private DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        states.clear();
        onTrial.clear();
        outside = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        outside.createContext("/api/orders", exchange -> {
            String path = exchange.getRequestURI().getPath();
            String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : path.split("/")[3];
            String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
            if (key != null) {
                onTrial.put(id, body.contains("\"test\":true"));
            }
            boolean known = "Bearer right".equals(exchange.getRequestHeaders().getFirst("Authorization"));
            if (path.endsWith("/withdrawal")) {
                states.putIfAbsent(id, "withdrawn");
            }
            byte[] answer = answer(id).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            int status = !known ? 401 : onTrial.containsKey(id) ? 200 : 404;
            exchange.sendResponseHeaders(status, answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        outside.start();
        folder = Files.createTempDirectory("quill-processors");
        open();
        server.setUp(BEGIN);
        server.account();
        client = server.client("Card Holder", true);
        invoice = server.issue(client, "100.00", "100%@3", null);
    }

    private void open() {
        server = Server.onDisk(folder);
        settings = server.bean(ProcessorSettings.class);
        orders = server.bean(CardOrders.class);
    }

    private String answer(String id) {
        String state = states.getOrDefault(id, "open");
        boolean paid = "paid".equals(state);
        return """
                {"id":"%s","state":"%s","amount":"100.00","currency":"EUR","payAt":"http://localhost/pay/%s",
                 "paid":%s,"with":{"way":"card","name":"Test card","lastFour":"0019","expiry":"09/29"},
                 "test":%s,"attempts":[]}
                """.formatted(
                        id,
                        state,
                        id,
                        paid
                                ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"100.00\",\"fee\":\"3.20\"}"
                                        .formatted(id)
                                : "null",
                        onTrial.get(id));
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        outside.stop(0);
    }

    private TypedProcessor typed(String name, String mode, Map<String, String> credentials, int version) {
        return new TypedProcessor(name, CountingHouse.KIND, mode, "", credentials, version);
    }

    private Map<String, String> good() {
        return Map.of(
                "address",
                "http://127.0.0.1:" + outside.getAddress().getPort(),
                "apiKey",
                "right",
                "eventSecret",
                "whsec_" + "c2VjcmV0c2VjcmV0c2VjcmV0");
    }

    private long add(String name, String mode) {
        settings.keep(settings.checked(null, typed(name, mode, good(), 0)));
        return one(name).id();
    }

    private ProcessorSettings.ProcessorView one(String name) {
        return settings.view().processors().stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private void switchTo(String name, String mode) {
        ProcessorSettings.ProcessorView p = one(name);
        Map<String, String> unchanged = Map.of("address", good().get("address")); // secrets that are left out stay
        settings.keep(settings.checked(p.id(), typed(name, mode, unchanged, p.version())));
    }

    private String pay() {
        return orders.payAt(stored(), ids(), Money.parse(HUNDRED));
    }

    private Document stored() {
        return server.bean(InvoicesService.class).invoice(invoice);
    }

    private Set<Long> ids() {
        return server.bean(Debts.class).of(invoice).stream()
                .map(StoredInstallment::id)
                .collect(Collectors.toSet());
    }

    private int count(String rows) {
        return server.jdbc()
                .sql("SELECT COUNT(*) FROM " + rows)
                .query(Integer.class)
                .single();
    }

    private WaysService.WayOffer card() {
        return server.bean(WaysService.class).offers(Money.parse(HUNDRED), client, invoice).stream()
                .filter(o -> o.way() == WayToPay.CARD)
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void withoutAnyNothingIsSaidOfCards() {
        assertThat(server.bean(WaysService.class).offers(Money.parse(HUNDRED), client, invoice))
                .noneMatch(o -> o.way() == WayToPay.CARD);
        assertThatThrownBy(this::pay).isInstanceOf(RefusedException.class);
    }

    /** A trial books nothing, settles nothing, and holds back nothing; letters do not speak of cards. */
    @Test
    public void aTestPaymentSettlesAndBooksNothing() {
        add("House", "TEST");
        int entries = count("journal_entry");
        int letters = count("message");
        pay();
        assertThat(onTrial.values()).containsExactly(true);
        assertThat(server.bean(OrdersInTransit.class).inTransit(Set.of(client))).isEmpty();
        onTrial.keySet().forEach(id -> states.put(id, "paid"));
        orders.askAboutAll(() -> false);
        orders.askAboutAll(() -> false);
        assertThat(stored().openMinor()).isEqualTo(10000);
        assertThat(count("movement")).isZero();
        assertThat(count("journal_entry")).isEqualTo(entries);
        assertThat(count("message")).isEqualTo(letters);
        assertThat(server.bean(TestPayments.class).of(invoice))
                .singleElement()
                .satisfies(t -> assertThat(t.how()).isEqualTo("by card, Test card ending 0019"));
        assertThat(card().offered()).isFalse();
        assertThat(card().test()).isTrue();
        WaysToPay.Ways ways = server.bean(WaysToPay.class).of(Money.parse(HUNDRED), client, invoice);
        assertThat(ways.card()).isFalse();
        switchTo("House", "ON");
        assertThat(server.bean(TestPayments.class).of(invoice)).isEmpty();
        assertThat(card().offered()).isTrue();
    }

    @Test
    public void realMoneyForATrialWaitsForAPerson() {
        add("House", "TEST");
        pay();
        onTrial.replaceAll((id, t) -> false);
        onTrial.keySet().forEach(id -> states.put(id, "paid"));
        orders.askAboutAll(() -> false);
        assertThat(orders.troubles())
                .singleElement()
                .satisfies(t -> assertThat(t.why()).contains("real money"));
    }

    @Test
    public void whatWasBegunOneWayIsNotPaidTheOther() {
        add("House", "TEST");
        pay();
        switchTo("House", "ON");
        orders.askAboutAll(() -> false);
        assertThat(states.values()).containsExactly("withdrawn");
        pay();
        assertThat(onTrial.values()).containsExactlyInAnyOrder(true, false);
        switchTo("House", "OFF");
        orders.askAboutAll(() -> false);
        assertThat(states.values()).containsExactly("withdrawn", "withdrawn");
        assertThat(card().missing()).contains("switched off");
        assertThatThrownBy(this::pay).isInstanceOf(RefusedException.class);
    }

    /** Money that comes for an order of a processor that is off by then is booked all the same. */
    @Test
    public void moneyOfAnOrderCountsAlsoAfterItsProcessorIsSwitchedOff() {
        add("House", "ON");
        pay();
        onTrial.keySet().forEach(id -> states.put(id, "paid"));
        switchTo("House", "OFF");
        orders.askAboutAll(() -> false);
        assertThat(stored().openMinor()).isZero();
        assertThat(count("movement")).isEqualTo(1);
    }

    @Test
    public void eachWayGoesThroughTheProcessorThatItNames() {
        add("First", "ON");
        long second = add("Second", "ON");
        WaysService ways = server.bean(WaysService.class);
        ways.change(
                ways.setting().ways().stream()
                        .map(w -> w.way().equals("CARD") ? w.through("" + second) : w)
                        .toList(),
                0);
        pay();
        assertThat(count("processor_order WHERE at_processor = " + second)).isEqualTo(1);
        assertThatThrownBy(() -> ways.change(
                        ways.setting().ways().stream().map(w -> w.through("99")).toList(), 1))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("ways[0].processor"));
        settings.remove(one("First").id(), one("First").version());
        assertThatThrownBy(() -> settings.remove(second, one("Second").version()))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("Switch it off instead");
    }

    @DataProvider
    Object[][] wrong() {
        Consumer<Map<String, String>> fine = m -> {};
        return new Object[][] {
            {"", "ON", fine, "name"},
            {"House", "SOMETIMES", fine, "mode"},
            {
                "House",
                "ON",
                (Consumer<Map<String, String>>) m -> m.put("address", "http://cards.example"),
                "credentials.address"
            },
            {
                "House",
                "ON",
                (Consumer<Map<String, String>>) m -> m.put("address", "https://a:b@cards.example"),
                "credentials.address"
            },
            {
                "House",
                "ON",
                (Consumer<Map<String, String>>) m -> m.put("address", "nonsense here"),
                "credentials.address"
            },
            {"House", "ON", (Consumer<Map<String, String>>) m -> m.remove("address"), "credentials.address"},
            {"House", "ON", (Consumer<Map<String, String>>) m -> m.put("apiKey", "é☃"), "credentials.apiKey"},
            {
                "House",
                "ON",
                (Consumer<Map<String, String>>) m -> m.put("eventSecret", "not base"),
                "credentials.eventSecret"
            },
            {"House", "ON", (Consumer<Map<String, String>>) m -> m.put("apiKey", " "), "credentials.apiKey"},
        };
    }

    @Test(dataProvider = "wrong")
    public void whatIsWrongIsNamed(String name, String mode, Consumer<Map<String, String>> change, String field) {
        Map<String, String> credentials = new java.util.HashMap<>(good());
        change.accept(credentials);
        assertThatThrownBy(() -> settings.checked(null, typed(name, mode, credentials, 0)))
                .isInstanceOfSatisfying(RefusedException.class, e -> {
                    assertThat(e.problems()).extracting(Problem::field).containsExactly(field);
                    assertThat(e.problems())
                            .as("no error repeats a secret")
                            .allMatch(p -> field.endsWith("address")
                                    || !field.startsWith("credentials")
                                    || p.value().isEmpty());
                });
    }

    /** Nobody sees a secret again: not over HTTP, not in the books; and none goes to another address. */
    @Test
    public void credentialsGoInAndNeverComeOut() throws IOException {
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        Caller caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
        String body = """
                {"name":"House","kind":"COUNTING_HOUSE","mode":"ON","paysInto":"","version":0,"credentials":
                 {"address":"%s","apiKey":"right","eventSecret":"%s"}}
                """.formatted(good().get("address"), good().get("eventSecret"));
        assertThat(caller.post("/api/processors", body).body()).contains("passphrase");
        assertThat(settings.view().processors()).isEmpty();
        caller.post("/api/session/proof", "{\"passphrase\":\"" + PASSPHRASE + "\"}");
        assertThat(caller.post("/api/processors", body).statusCode()).isEqualTo(200);
        assertThat(caller.get("/api/processors").body())
                .contains(good().get("address"))
                .doesNotContain("right\"")
                .doesNotContain(good().get("eventSecret"));
        ProcessorSettings.ProcessorView house = one("House");
        assertThat(settings.tryIt(house.id()).ok()).isTrue();
        assertThatThrownBy(() -> settings.checked(
                        house.id(), typed("House", "ON", Map.of("address", "https://thief.example"), house.version())))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).message()).contains("another address"));
        server.close();
        for (Path file : Files.list(folder).filter(Files::isRegularFile).toList()) {
            assertThat(new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1))
                    .as(file.toString())
                    .doesNotContain(good().get("eventSecret"));
        }
        // Books that are opened without their key: no card is taken, and the page of settings says what to do.
        Files.delete(folder.resolve("credentials.key"));
        open();
        assertThat(one("House").warnings()).anyMatch(w -> w.contains("Type them again"));
        assertThat(card().missing()).contains("cannot be read");
        assertThat(settings.tryIt(house.id()).ok()).isFalse();
    }

    @Test
    public void aTrialOfTheConnectionSaysWhatIsWrong() {
        long id = add("House", "OFF");
        Map<String, String> wrongKey = new java.util.HashMap<>(good());
        wrongKey.put("apiKey", "wrong");
        settings.keep(settings.checked(id, typed("House", "OFF", wrongKey, 1)));
        assertThat(settings.tryIt(id).words()).contains("does not know your key");
        outside.stop(0);
        assertThat(settings.tryIt(id).words()).contains("does not answer");
        assertThatThrownBy(() -> settings.keep(settings.checked(id, typed("House", "ON", wrongKey, 1))))
                .isInstanceOf(ConflictException.class);
    }

    @Test
    public void itSaysThatNoAccountIsChosen() {
        long id = add("House", "ON");
        assertThat(one("House").warnings()).containsExactly("No account is chosen that it pays out to.");
        String iban = settings.view().accounts().get(0).iban();
        settings.keep(settings.checked(
                id,
                new TypedProcessor(
                        "House", CountingHouse.KIND, "ON", iban, Map.of("address", good().get("address")), 1)));
        assertThat(one("House").warnings()).isEmpty();
        assertThatThrownBy(() ->
                        settings.checked(id, new TypedProcessor("House", CountingHouse.KIND, "ON", "DE00", good(), 2)))
                .isInstanceOf(RefusedException.class);
    }
}
