package quill.server.collections;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.CollectionAgreement;
import quill.core.pay.PayingLater;
import quill.server.business.BusinessService;
import quill.server.cardorders.HowPaid;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.common.TypedMark;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.savedmethods.Agreed;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;
import quill.server.ways.WaysService;

/** What is kept of clients, planned and asked for, ready to be shown. */
@Component
public class SavedViews {
    private static final int LONGEST_SAID = 600;
    private final SavedMethods methods;
    private final PlannedPayments planned;
    private final MethodRequests requests;
    private final WaysService ways;
    private final BusinessService business;
    private final Documents documents;
    private final BusinessClock clock;

    SavedViews(
            SavedMethods methods,
            PlannedPayments planned,
            MethodRequests requests,
            WaysService ways,
            BusinessService business,
            Documents documents,
            BusinessClock clock) {
        this.methods = methods;
        this.planned = planned;
        this.requests = requests;
        this.ways = ways;
        this.business = business;
        this.documents = documents;
        this.clock = clock;
    }

    /**
     * One that is kept.
     *
     * @param words brand and last four
     * @param validUntil month and year; empty for a bank account
     * @param expired whether nothing can be taken from it any more
     * @param collects whether the business may take open sums from it
     * @param agreed what its holder agreed to, in words
     */
    record SavedView(
            long id,
            String words,
            String validUntil,
            boolean expired,
            boolean collects,
            String agreed,
            LocalDate keptOn) {}

    /** What is planned. @param canBeTakenBack until the day before */
    record PlannedView(
            long id,
            DocumentId documentId,
            String number,
            Amount amount,
            LocalDate on,
            String from,
            boolean canBeTakenBack) {}

    /** What a client is asked by. @param page its address */
    record MethodAskedView(long id, LocalDate askedOn, String page) {}

    /**
     * What the business sees of a client.
     *
     * @param possible whether something can be kept: it is switched on, and a processor takes money
     * @param asked null where nothing is asked for
     */
    record SavedOfClient(
            boolean possible,
            List<SavedView> methods,
            List<PlannedView> planned,
            @Schema(nullable = true) MethodAskedView asked) {}

    /** The days that can be chosen. */
    record LaterDays(LocalDate first, LocalDate last) {}

    /**
     * What a client sees on its page.
     *
     * @param offered whether it can let something be kept
     * @param later on which days something can be taken of what is open; null where none can be chosen
     */
    record SavedOnPage(
            boolean offered,
            List<SavedView> methods,
            List<PlannedView> planned,
            @Schema(nullable = true) LaterDays later) {}

    /** The page that asks for a card or mandate. @param state asked, given or withdrawn @param given what was given; empty before, and once it is removed */
    record AskedPage(String from, String to, String state, String given, String currency) {}

    /** What is ticked. @param most so much at a time; empty for every open sum */
    public record TypedKeep(
            @Schema(nullable = true) Boolean collects,
            @Schema(nullable = true) String most) {
        /** With the limit as digits, where it was typed with the business's own decimal mark. */
        public TypedKeep plain() {
            return new TypedKeep(collects, TypedMark.plain(most));
        }
    }

    boolean possible(ClientId id) {
        return methods.setting().offered() && ways.keeping(id).isPresent();
    }

    SavedOfClient ofClient(ClientId id) {
        return new SavedOfClient(
                possible(id),
                saved(id),
                planned.ofClient(id).stream().map(this::view).toList(),
                requests.asked(id)
                        .map(r -> new MethodAskedView(r.id(), r.askedOn(), requests.page(r)))
                        .orElse(null));
    }

    SavedOnPage onPage(Document invoice) {
        List<SavedView> saved = saved(invoice.clientId());
        boolean open = invoice.openMinor() > 0 && invoice.voidedOn() == null;
        boolean later = open
                && !ways.holds(invoice.id())
                && methods.setting().laterDays() > 0
                && saved.stream().anyMatch(m -> !m.expired());
        LaterDays days = null;
        if (later) {
            PayingLater all = planned.days(planned.open(invoice, null));
            days = new LaterDays(all.first(), all.last());
        }
        return new SavedOnPage(
                possible(invoice.clientId()),
                saved,
                planned.ofDocument(invoice.id()).stream().map(this::view).toList(),
                days);
    }

    private List<SavedView> saved(ClientId id) {
        return methods.ofClient(id).stream().map(this::view).toList();
    }

    private SavedView view(SavedMethod m) {
        return new SavedView(
                m.id(),
                m.with().words(),
                m.with().expires() == null ? "" : m.with().expires().words(),
                !m.isUsable(clock.today()),
                m.agreed().agreement().collects(),
                m.agreed().words(),
                m.on());
    }

    PlannedView view(PlannedPayment p) {
        return new PlannedView(
                p.id(),
                p.documentId(),
                documents.find(p.documentId()).map(Document::number).orElse(""),
                Amount.of(p.amount()),
                p.on(),
                methods.find(p.methodId()).with().words(),
                PayingLater.canBeTakenBack(p.on(), clock.today()));
    }

    AskedPage page(MethodRequest r, String clientName) {
        String given = saved(r.clientId()).stream()
                .filter(m -> r.given() != null && m.id() == r.given())
                .findFirst()
                .map(SavedView::words)
                .orElse("");
        return new AskedPage(
                business.business().name(),
                clientName,
                r.state().word(),
                given,
                business.business().currency());
    }

    /** What was ticked, in words. @param problems of {@code keep.most} */
    Optional<Agreed> ticked(TypedKeep typed, CurrencyUnit currency, List<Problem> problems) {
        boolean collects = Boolean.TRUE.equals(typed.collects());
        List<Problem> own = new ArrayList<>();
        CollectionAgreement agreement = CollectionAgreement.read(collects, typed.most(), currency, own);
        own.forEach(p -> problems.add(new Problem("keep." + p.field(), p.value(), p.message())));
        return Optional.ofNullable(agreement).map(a -> new Agreed(Agreed.How.PAGE, a, words(a)));
    }

    /** The same, of what was said in person or by telephone. @param said what, as noted */
    Optional<Agreed> spoken(TypedKeep typed, String said, CurrencyUnit currency, List<Problem> problems) {
        String noted = Texts.text("keep.said", said, LONGEST_SAID, true, problems);
        return ticked(typed, currency, problems)
                .map(a -> new Agreed(Agreed.How.SPOKEN, a.agreement(), a.words() + " Said so: " + noted));
    }

    /**
     * How something is to be paid on the processor's page.
     *
     * @param typed what was ticked; null for nothing
     * @param bySomebodyElse whether somebody else pays than whose document it is: nothing is kept then
     */
    public HowPaid onPage(Document document, TypedKeep typed, boolean bySomebodyElse) {
        boolean hold = ways.holds(document.id());
        if (typed == null) {
            return HowPaid.held(hold);
        }
        checkPossible(document.clientId());
        if (bySomebodyElse) {
            throw new RefusedException("keep", "", "is for the client alone; do not name somebody else who pays");
        }
        List<Problem> problems = new ArrayList<>();
        return ticked(typed, CurrencyUnit.of(document.currency()), problems)
                .map(a -> HowPaid.keeping(hold, a))
                .orElseThrow(() -> new RefusedException(problems));
    }

    /** The same in person or by telephone. @param said what the client said; null where nothing is kept */
    public HowPaid atHand(Document document, boolean hold, TypedKeep typed, String said) {
        List<Problem> problems = new ArrayList<>();
        HowPaid how = atHand(
                document.clientId(), CurrencyUnit.of(document.currency()), hold, new Kept(typed, said), problems);
        check(problems);
        return how;
    }

    /** What was agreed in person. @param typed null where nothing is kept @param said what the client said */
    public record Kept(TypedKeep typed, String said) {}

    /** The same where there is no document. @param client null for somebody new @param problems of {@code keep} */
    public HowPaid atHand(ClientId client, CurrencyUnit currency, boolean hold, Kept kept, List<Problem> problems) {
        if (kept.typed() == null) {
            return HowPaid.held(hold);
        }
        checkPossible(client);
        return spoken(kept.typed(), kept.said(), currency, problems)
                .map(a -> HowPaid.keeping(hold, a))
                .orElse(HowPaid.PLAIN);
    }

    /** Nothing is taken from what is kept where the page only holds. @throws ConflictException where it does */
    void checkTakes(Document document) {
        if (ways.holds(document.id())) {
            throw new ConflictException(
                    "The money is only held here, until the work is done. Nothing was taken. Look again before you pay.");
        }
    }

    private void checkPossible(ClientId client) {
        if (!possible(client)) {
            throw new ConflictException("No card or mandate is kept here now. Look again before you pay.");
        }
    }

    private String words(CollectionAgreement a) {
        String own = business.business().name();
        if (!a.collects()) {
            return "It is kept for what I pay " + own + " later, and nothing is taken from it unless I say so.";
        }
        String limit = a.most() == null ? "" : ", at most " + Shown.money(a.most()) + " at a time";
        return "It is kept for what I pay " + own + " later, and " + own + " may take open sums of my invoices from it"
                + limit + ".";
    }

    /** @throws RefusedException with all of them, where there are any */
    static void check(List<Problem> problems) {
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
