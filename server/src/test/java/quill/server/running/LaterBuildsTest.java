package quill.server.running;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedInstallmentOffer;
import quill.core.document.TypedOffer;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.Agreement;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.creditnotes.Crediting;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.dispatch.Outbox;
import quill.server.documents.DocumentKind;
import quill.server.documents.DocumentState;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;
import quill.server.payments.PaymentsService;
import quill.server.payments.Undoing;
import quill.server.publicpages.Picking;
import quill.server.quotes.Answering;
import quill.server.quotes.QuoteInvoicing;
import quill.server.quotes.QuotesService;
import quill.server.requests.Requests;

/**
 * Books outlive the build that kept them. Whatever made their tables is never edited again; and every folder that an
 * earlier build kept is opened, brought up to date, and comes to the same figures.
 *
 * <p>{@code -Dquill.keep-folder=FILE.zip} makes such a folder with this build; it is added when the tables have changed.
 */
public class LaterBuildsTest {
    private static final Path TABLES = Path.of("src/main/resources/db/books");
    private static final Path KEPT = Path.of("src/test/resources/kept");
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private static final TypedLateFeePolicy FEE =
            new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false);

    @Test
    public void whatMadeTheTablesIsNeverEdited() throws Exception {
        Map<String, String> landed = new TreeMap<>();
        for (String line : Files.readAllLines(KEPT.resolve("tables.txt"))) {
            landed.put(line.substring(line.indexOf(' ') + 1), line.substring(0, line.indexOf(' ')));
        }
        Map<String, String> now = new TreeMap<>();
        try (Stream<Path> files = Files.list(TABLES)) {
            for (Path file : files.toList()) {
                now.put(file.getFileName().toString(), hash(file));
            }
        }
        assertThat(now)
                .as("a change is a new file, whose line is added to " + KEPT.resolve("tables.txt"))
                .isEqualTo(landed);
    }

    private static String hash(Path file) throws Exception {
        return HexFormat.of()
                .formatHex(MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(file)))
                .substring(0, 32);
    }

    @DataProvider
    public Object[][] folders() throws IOException {
        try (Stream<Path> files = Files.list(KEPT)) {
            return files.filter(f -> f.toString().endsWith(".zip"))
                    .sorted()
                    .map(f -> new Object[] {f})
                    .toArray(Object[][]::new);
        }
    }

    @Test(dataProvider = "folders")
    public void aFolderOfAnEarlierBuildIsOpenedAndComesToTheSame(Path zip) throws Exception {
        Path folder = Files.createTempDirectory("quill-kept");
        unpack(zip, folder);
        String figures = Files.readString(folder.resolve("figures.txt"));
        try (Server server = Server.onDisk(folder)) {
            server.moveTo(DAY.plusDays(20), LocalTime.of(12, 0));
            assertThat(figures(server)).isEqualTo(figures);
            assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
            // And they go on.
            ClientId client = server.client("Later Client", true);
            DocumentId invoice = issue(server, client, "10.00");
            server.bean(PaymentsService.class)
                    .record(new PaymentsService.Recorded(
                            "later-payment",
                            client,
                            invoice,
                            "TRANSFER",
                            "12.00",
                            DAY.plusDays(20).toString(),
                            ""));
            server.moveTo(DAY.plusDays(21), LocalTime.of(12, 0));
            server.bean(DailyRun.class).catchUp();
            assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        }
    }

    /** Without tax where the business has none, else with the one that it has. */
    private static DocumentId issue(Server server, ClientId client, String price) {
        InvoicesService invoices = server.bean(InvoicesService.class);
        List<String> taxes = server.bean(BusinessService.class).taxes().keySet().stream()
                .filter(id -> !id.equals("none"))
                .limit(1)
                .toList();
        DocumentId draft = invoices.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("tuning")
                .supplyDate(DAY.toString())
                .lines(List.of(new TypedLine("Tuning", "1", "", price, "", taxes.isEmpty() ? List.of("none") : taxes)))
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build());
        return invoices.issue(draft, 1).id();
    }

    /** One of everything: what is open, what came, what was taken back, what waits. */
    @Test
    public void aFolderOfThisBuildIsOpenedToo() throws Exception {
        Path folder = Files.createTempDirectory("quill-kept");
        try (Server server = Server.onDisk(folder)) {
            tell(server);
            Files.writeString(folder.resolve("figures.txt"), figures(server));
            assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        }
        String wanted = System.getProperty("quill.keep-folder", "");
        Path zip = wanted.isEmpty() ? Files.createTempFile("quill-kept", ".zip") : Path.of(wanted);
        pack(folder, zip);
        aFolderOfAnEarlierBuildIsOpenedAndComesToTheSame(zip);
    }

    private static void tell(Server server) {
        server.setUp(DAY);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "10", false, 0));
        server.bean(DailyRun.class).catchUp();
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-01-01", "1.1745"));
        ClientId one = server.client("Early Client", true);
        ClientId two = server.client("Other Client", true);
        DocumentId parts = server.issue(one, "300.00", "40%@0 rest@10", FEE);
        DocumentId paid = server.issue(one, "50.00", "100%@5", null);
        DocumentId pounds = server.issueIn("GBP", two, "80.00", "100%@5");
        server.pay(one, paid, "70.00", DAY);
        long wrong = server.pay(one, null, "200.00", DAY);
        server.bean(Undoing.class).undo(wrong, "typed twice");
        server.pay(two, pounds, "100.00", DAY);
        server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "a-deposit-of-25", two, null, "CASH", null, "25.00", null, "", true));
        DocumentId replaced = server.issue(two, "60.00", "100%@5", null);
        server.pay(two, replaced, "60.00", DAY);
        server.bean(Crediting.class).write(replaced, Crediting.Wanted.rest("the wrong piano", true));
        tellOfQuotes(server, one);
        server.moveTo(DAY.plusDays(20), LocalTime.of(12, 0));
        server.bean(DailyRun.class).catchUp();
        server.bean(Outbox.class).sendDue();
        assertThat(server.bean(Debts.class).of(parts)).anyMatch(d -> d.fee());
    }

    /** A deposit that came in part, a stage, and installments that were picked. */
    private static void tellOfQuotes(Server server, ClientId client) {
        server.account();
        server.registered(TaxRounding.PER_TAX, "BE0123456749");
        List<String> taxes = List.of(server.tax("high", "21", "S", false, ""));
        QuotesService quotes = server.bean(QuotesService.class);
        DocumentId id = quotes.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("the restoration")
                .lines(List.of(new TypedLine("Restoration", "1", "", "1000.01", "", taxes)))
                .schedule(List.of(new TypedTerm(true, "50%", "0"), new TypedTerm(false, "rest", "14")))
                .offer(new TypedOffer("", "<p>As agreed.</p>"))
                .build());
        server.bean(Answering.class)
                .acceptByHand(
                        quotes.issue(id, 1), new Answering.Acceptance("Early, on the telephone", List.of(), null));
        server.pay(client, id, "300.00", DAY);
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId stage =
                server.bean(QuoteInvoicing.class).begin(id, new QuoteInvoicing.ToBill("percent", "40%", List.of()));
        invoices.issue(stage, invoices.invoice(stage).version());
        DocumentId plan = invoices.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("the keyboard")
                .supplyDate(DAY.toString())
                .lines(List.of(new TypedLine("Keyboard", "1", "", "100.00", "", taxes)))
                .schedule(List.of(new TypedTerm(false, "rest", "30")))
                .plan(new TypedInstallmentOffer("12", "31 Mar", "10%", false))
                .build());
        server.bean(Picking.class)
                .pick(invoices.issue(plan, 1), 3, Money.of(CurrencyUnit.EUR, new BigDecimal("121.00")), "");
    }

    /** What is missing on each accepted quote; those of earlier builds had none. */
    private static String asked(Server server) {
        Requests requests = server.bean(Requests.class);
        return server
                .jdbc()
                .sql("SELECT id FROM document WHERE kind = :kind AND state = :state ORDER BY id")
                .param("kind", DocumentKind.QUOTE)
                .param("state", DocumentState.ACCEPTED)
                .query(Long.class)
                .list()
                .stream()
                .map(id -> requests.on(server.bean(QuotesService.class).quote(new DocumentId(id))))
                .map(q -> "asked " + q.asked().size() + ", received " + q.received() + ", missing " + q.missing()
                        + ", left " + q.left() + "\n")
                .collect(Collectors.joining());
    }

    private static String figures(Server server) {
        Debts debts = server.bean(Debts.class);
        List<String> lines = server.jdbc()
                .sql("SELECT id, name FROM client ORDER BY id")
                .query((rs, n) -> Stream.of("EUR", "GBP")
                        .map(c -> {
                            try {
                                Agreement a = debts.agreement(new ClientId(rs.getLong(1)), CurrencyUnit.of(c));
                                return rs.getString(2) + ": " + a.open() + " open, " + a.credit() + " credit, "
                                        + a.deposits() + " deposits, " + a.byPostings() + " by postings";
                            } catch (java.sql.SQLException e) {
                                throw new IllegalStateException(e);
                            }
                        })
                        .collect(Collectors.joining("\n")))
                .list();
        String accounts = server.bean(BooksService.class).balances().own().stream()
                .map(b -> b.account() + " " + b.detail() + " " + b.amount())
                .collect(Collectors.joining("\n"));
        return String.join("\n", lines) + "\n" + accounts + "\n" + counted(server) + "\n" + asked(server);
    }

    private static String counted(Server server) {
        return Stream.of("document", "movement", "journal_entry", "debt", "message")
                .map(table -> table + " "
                        + server.jdbc()
                                .sql("SELECT COUNT(*) FROM " + table)
                                .query(Long.class)
                                .single())
                .collect(Collectors.joining("\n"));
    }

    private static void pack(Path folder, Path zip) throws IOException {
        try (Stream<Path> files = Files.list(folder);
                OutputStream to = Files.newOutputStream(zip);
                ZipOutputStream all = new ZipOutputStream(to, StandardCharsets.UTF_8)) {
            for (Path file : files.filter(f -> !f.toString().endsWith(".trace.db"))
                    .filter(Files::isRegularFile)
                    .sorted()
                    .toList()) {
                all.putNextEntry(new ZipEntry(file.getFileName().toString()));
                Files.copy(file, all);
            }
        }
    }

    private static void unpack(Path zip, Path folder) throws IOException {
        try (InputStream from = Files.newInputStream(zip);
                ZipInputStream all = new ZipInputStream(from, StandardCharsets.UTF_8)) {
            for (ZipEntry entry = all.getNextEntry(); entry != null; entry = all.getNextEntry()) {
                Files.copy(all, folder.resolve(entry.getName()));
            }
        }
    }
}
