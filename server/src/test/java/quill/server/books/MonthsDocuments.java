package quill.server.books;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.Why;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.ledger.OpenDebt;
import quill.core.schedule.TypedTerm;
import quill.server.Server;
import quill.server.arranging.Arrangements;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.CreditLetters;
import quill.server.dispatch.Withdrawals;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.LateFees;
import quill.server.writeoffs.WriteOffs;

/** What happens to documents in a month of one client: done with the product, and in the second reckoning. */
abstract class MonthsDocuments {
    static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final String[] TERMS = {"100%@30", "rest@0", "40%@0 rest@30", "equal@1 equal@15 equal@45"};
    final MonthsModel model = new MonthsModel();
    protected final Random random;
    protected final Server server;
    ClientId client;
    List<DocumentId> invoices = new ArrayList<>();
    private int keys;

    MonthsDocuments(Server server, Random random) {
        this.server = server;
        this.random = random;
    }

    protected static String euros(long minor) {
        return BigDecimal.valueOf(minor, 2).toPlainString();
    }

    protected static long minor(String plain) {
        return new BigDecimal(plain).movePointRight(2).longValueExact();
    }

    protected String key() {
        return "months-key-" + keys++;
    }

    protected DocumentId any() {
        return invoices.isEmpty() ? null : invoices.get(random.nextInt(invoices.size()));
    }

    protected <T> T locked(Supplier<T> read) {
        return server.bean(TransactionTemplate.class).execute(s -> read.get());
    }

    Document stored(DocumentId id) {
        return server.bean(InvoicesService.class).invoice(id);
    }

    List<StoredInstallment> debts(DocumentId id) {
        return server.bean(Debts.class).of(id);
    }

    long creditHeld() {
        return server.bean(BooksService.class).creditOf(client, EUR).getAmountMinorLong();
    }

    protected String issue() {
        long price = 1_000 + random.nextInt(60_000);
        invoices.add(server.issue(client, euros(price), TERMS[random.nextInt(TERMS.length)], null));
        model.owe(client, price, "INCOME");
        return "issued";
    }

    protected String voided() {
        DocumentId id = any();
        if (id == null) {
            return "";
        }
        long total = stored(id).total().getAmountMinorLong();
        server.bean(Withdrawals.class).voidIt(id, "a mistake");
        invoices.remove(id);
        model.owe(client, -total, "INCOME");
        return "voided";
    }

    /** Taken back to a draft before anybody saw it, and issued at another price. */
    protected String revise() {
        DocumentId id = any();
        if (id == null) {
            return "";
        }
        long before = stored(id).total().getAmountMinorLong();
        server.bean(Withdrawals.class).takeBack(id, "another price");
        InvoicesService all = server.bean(InvoicesService.class);
        long price = 1_000 + random.nextInt(60_000);
        TypedDraft.TypedLine line = new TypedDraft.TypedLine("Work", "1", "", euros(price), "", List.of("none"));
        int version = all.keep(
                id,
                stored(id).version(),
                all.typed(stored(id)).changed().lines(List.of(line)).build());
        all.issue(id, version);
        model.owe(client, price - before, "INCOME");
        return "revised";
    }

    protected String writeOff() {
        DocumentId id = any();
        if (id == null || stored(id).openMinor() == 0) {
            return "";
        }
        long open = stored(id).openMinor();
        server.bean(WriteOffs.class).writeOff(id, euros(open), "cannot pay");
        model.owe(client, -open, "BAD_DEBTS");
        model.writtenOff.merge(id, open, Long::sum);
        return "written off";
    }

    protected String oweAgain() {
        DocumentId id = any();
        long given = model.writtenOff.getOrDefault(id, 0L);
        if (id == null) {
            return "";
        }
        server.bean(WriteOffs.class).oweAgain(id);
        assertThat(given).isPositive();
        model.owe(client, given, "BAD_DEBTS");
        model.writtenOff.remove(id);
        return "owed again";
    }

    /** A part, of what was neither fined nor written off: then the rest is nobody's. */
    protected String credit() {
        DocumentId id = any();
        if (id == null || model.writtenOff.containsKey(id)) {
            return "";
        }
        long amount = 1 + random.nextInt((int) stored(id).total().getAmountMinorLong());
        server.bean(CreditLetters.class)
                .credit(id, new Crediting.Wanted("amount", "less work", List.of(), List.of(), euros(amount), false));
        model.owe(client, -amount, "INCOME");
        return "credited";
    }

    protected String rearrange() {
        DocumentId id = any();
        if (id == null) {
            return "";
        }
        String[] days = {"60", "monthly", "45"};
        List<TypedTerm> terms = new ArrayList<>();
        for (int i = 0; i <= random.nextInt(3); i++) {
            terms.add(new TypedTerm(false, "equal", days[i]));
        }
        server.bean(Arrangements.class).rearrange(id, new Arrangements.Rearrangement(terms, "", null), null);
        return "rearranged";
    }

    protected String fine() {
        List<OpenDebt> open = locked(() -> server.bean(Debts.class).open(client, EUR)).stream()
                .filter(d -> !d.fee() && d.dueOn() != null)
                .toList();
        if (open.isEmpty()) {
            return "";
        }
        OpenDebt of = open.get(random.nextInt(open.size()));
        Money fee = Money.ofMinor(EUR, 100 + random.nextInt(900));
        LateFee late = new LateFee(++keys, of.dueOn(), of.open(), fee, fee, List.of(), Why.of("as it happens"));
        server.bean(TransactionTemplate.class)
                .executeWithoutResult(s -> server.bean(LateFees.class).charge(client, of, late, of.dueOn()));
        model.owe(client, fee.getAmountMinorLong(), "LATE_FEE_INCOME");
        return "fined";
    }

    protected String waive() {
        DocumentId id = any();
        List<LateFees.StoredFee> fees = id == null || model.writtenOff.containsKey(id)
                ? List.of()
                : server.bean(LateFees.class).ofInvoice(id).stream()
                        .filter(f -> f.waived() == null)
                        .toList();
        if (fees.isEmpty()) {
            return "";
        }
        LateFees.StoredFee fee = fees.get(random.nextInt(fees.size()));
        server.bean(LateFees.class).waive(fee.id(), "as a courtesy");
        model.owe(client, -minor(fee.amount().amount()), "LATE_FEE_INCOME");
        return "waived";
    }
}
