package quill.server;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.PayloadApplicationEvent;
import org.springframework.jdbc.core.simple.JdbcClient;
import quill.core.document.DraftBuilder;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.cardorders.CardOrders;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.invoices.InvoicesService;
import quill.server.payments.PaymentsService;

/**
 * The application on fresh books in memory, with nothing on a timer: tests move its clock and start its runs. One is started
 * for all tests with the same settings, and is as new for each; one with books in a folder is started each time.
 */
public final class Server implements AutoCloseable {
    private static final String BOOKS = "--spring.datasource.url";
    public static final ZoneId ZONE = ZoneId.of("Europe/Dublin");
    private static int count;
    private final ConfigurableApplicationContext context;
    /** Where it is used again; else null. */
    private final StartedOnce startedOnce;

    private int payments;

    /** @param more settings over the tests' own, such as {@code --quill.processor.url=…} */
    public Server(String... more) {
        Map<String, String> settings = new LinkedHashMap<>();
        for (String each : more) {
            settings.put(each.substring(0, each.indexOf('=')), each.substring(each.indexOf('=') + 1));
        }
        startedOnce = isOfItsOwn(settings) ? null : StartedOnce.with(settings, () -> start(settings));
        context = startedOnce == null ? start(settings) : startedOnce.context;
    }

    /** Books in a folder outlive it, and what is done by itself would go on for the next test. */
    private static boolean isOfItsOwn(Map<String, String> settings) {
        return settings.keySet().stream().anyMatch(s -> s.equals(BOOKS) || s.endsWith("-every"));
    }

    private static ConfigurableApplicationContext start(Map<String, String> more) {
        try {
            Map<String, String> settings = new LinkedHashMap<>();
            settings.put("--server.port", "0");
            settings.put(
                    "--quill.data",
                    Files.createTempDirectory("quill-server-test").toString());
            // It stays while no connection is open, as a file would.
            settings.put(
                    BOOKS,
                    "jdbc:h2:mem:test" + count++
                            + ";DB_CLOSE_DELAY=-1;DB_CLOSE_ON_EXIT=FALSE;WRITE_DELAY=0;LOCK_TIMEOUT=10000;OPTIMIZE_REUSE_RESULTS=0");
            settings.put("--server.shutdown", "immediate");
            settings.put("--quill.outbox-every", "36000000");
            settings.put("--quill.find-every", "36000000");
            settings.put("--quill.run-every", "36000000");
            settings.put("--quill.call-back-seconds", "0");
            settings.put("--quill.processor.ask-every", "36000000");
            settings.put("--quill.processor.read-every", "36000000");
            settings.put("--logging.level.quill", "WARN");
            settings.putAll(more);
            String url = settings.get(BOOKS);
            if (url.startsWith("jdbc:h2:mem:")) {
                EmptyBooks.layOut(url, Path.of(settings.get("--quill.data")));
            }
            return QuillApplication.start(settings.entrySet().stream()
                    .map(e -> e.getKey() + "=" + e.getValue())
                    .toArray(String[]::new));
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** The application with its books in a folder, as it is shipped. */
    public static Server onDisk(Path folder, String... more) {
        List<String> all = new ArrayList<>(List.of(more));
        all.add("--quill.data=" + folder);
        all.add(BOOKS + "=" + urlIn(folder));
        return new Server(all.toArray(String[]::new));
    }

    /** As in quill.properties. */
    public static String urlIn(Path folder) {
        return "jdbc:h2:async:" + folder.resolve("books")
                + ";WRITE_DELAY=0;LOCK_TIMEOUT=10000;DB_CLOSE_ON_EXIT=FALSE;MAX_COMPACT_TIME=120000;OPTIMIZE_REUSE_RESULTS=0";
    }

    /** Its address, with what follows the port. */
    public String url(String path) {
        return "http://localhost:" + context.getEnvironment().getProperty("local.server.port") + path;
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    /** Hands over each event of a kind within the application, when it is published. */
    public <E> void listen(Class<E> kind, Consumer<E> listener) {
        ApplicationListener<?> hears = new ApplicationListener<PayloadApplicationEvent<?>>() {
            @Override
            public void onApplicationEvent(PayloadApplicationEvent<?> e) {
                if (kind.isInstance(e.getPayload())) {
                    listener.accept(kind.cast(e.getPayload()));
                }
            }
        };
        if (startedOnce == null) {
            context.addApplicationListener(hears);
        } else {
            startedOnce.listen(hears);
        }
    }

    /** Begins to pay an invoice's installments, all of them, at the processor. @param sum as its page shows it */
    public void beginToPay(DocumentId invoice, String sum) {
        bean(CardOrders.class)
                .payAt(
                        bean(InvoicesService.class).invoice(invoice),
                        bean(Debts.class).of(invoice).stream()
                                .map(StoredInstallment::id)
                                .collect(Collectors.toSet()),
                        Money.parse(sum));
    }

    public JdbcClient jdbc() {
        return bean(JdbcClient.class);
    }

    /** Sets the business up on a day, without tax, so that totals are the prices. */
    public void setUp(LocalDate day) {
        bean(BusinessClock.class).setZone(ZONE);
        moveTo(day, LocalTime.of(8, 0));
        bean(BusinessService.class)
                .setUp(new Business(
                        "Test Workshop",
                        "",
                        "Here 1",
                        "",
                        "post@workshop.example",
                        "",
                        false,
                        "EUR",
                        ZONE.getId(),
                        Business.TransferAccount.NONE,
                        Business.Habits.USUAL,
                        1));
    }

    /** Registers the business for tax, with all that an electronic invoice names of it. */
    public void registered(TaxRounding rounding, String number) {
        change("Here 1\n1000 Town", "BE", number, true, rounding);
    }

    /** Gives the business a bank account. */
    public void account() {
        Business b = bean(BusinessService.class).business();
        change(
                b.address(),
                b.country(),
                b.taxNumber(),
                b.registered(),
                b.habits().taxRounding());
    }

    private void change(String address, String country, String number, boolean registered, TaxRounding rounding) {
        BusinessService business = bean(BusinessService.class);
        Business b = business.business();
        business.change(new Business(
                b.name(),
                b.tagline(),
                address,
                country,
                b.email(),
                number,
                registered,
                "EUR",
                b.zone(),
                new Business.TransferAccount("XX51 LARK 0000 0004 20", "LARKXX20"),
                new Business.Habits(
                        b.habits().invoicePattern(), b.habits().creditNotePattern(), 30, rounding, "", false),
                b.version()));
    }

    /** Adds a tax. @return its id */
    public String tax(String name, String rate, String category, boolean compound, String reason) {
        return bean(BusinessService.class)
                .addTax(new BusinessService.TypedTax("Tax " + name, rate, category, compound, reason))
                .id();
    }

    public void moveTo(LocalDate day, LocalTime time) {
        bean(BusinessClock.class).moveTo(day.atTime(time).atZone(ZONE));
    }

    public ClientId client(String name, boolean withAddress) {
        String email = withAddress ? name.replace(' ', '.').toLowerCase() + "@clients.example" : "";
        return bean(ClientsService.class)
                .make(new Client(ClientId.NEW, name, "", email, "There 2", "", 1))
                .id();
    }

    /** Issues an invoice of one line without sending it. @param terms such as {@code 40%@0 rest@30}, with _ for a blank */
    public DocumentId issue(ClientId client, String price, String terms, TypedLateFeePolicy lateFee) {
        return issue(client, "Work", price, terms, lateFee);
    }

    /** The same, of work of another name. */
    public DocumentId issue(ClientId client, String work, String price, String terms, TypedLateFeePolicy lateFee) {
        return bean(InvoicesService.class)
                .issue(draft(client, work, price, terms, lateFee), 1)
                .id();
    }

    /** Begins a draft of one line. */
    public DocumentId draft(ClientId client, String work, String price, String terms, TypedLateFeePolicy lateFee) {
        return begin(lines(TypedDraft.in("EUR").client(client), work, price).lateFee(lateFee), terms);
    }

    /** Issues one of one line in another currency, which bears no late fees. */
    public DocumentId issueIn(String currency, ClientId client, String price, String terms) {
        DocumentId draft = begin(lines(TypedDraft.in(currency).client(client), "Work", price), terms);
        return bean(InvoicesService.class).issue(draft, 1).id();
    }

    private DraftBuilder lines(DraftBuilder draft, String work, String price) {
        return draft.subject("work")
                .supplyDate(bean(BusinessClock.class).today().toString())
                .lines(List.of(new TypedLine(work, "1", "", price, "", List.of("none"))));
    }

    private DocumentId begin(DraftBuilder draft, String terms) {
        List<TypedTerm> schedule = List.of(terms.split(" ")).stream()
                .map(t -> t.split("@"))
                .map(t -> new TypedTerm(t[0].startsWith("d"), t[0].replace("d", ""), t[1].replace('_', ' ')))
                .toList();
        return bean(InvoicesService.class).begin(draft.schedule(schedule).build());
    }

    /** Records a transfer. @return the payment's id */
    public long pay(ClientId client, DocumentId invoice, String amount, LocalDate valueOn) {
        return bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "server-test-" + payments++, client, invoice, "TRANSFER", amount, valueOn.toString(), ""))
                .id();
    }

    @Override
    public void close() {
        if (startedOnce == null) {
            context.close();
        } else {
            startedOnce.rest();
        }
    }
}
