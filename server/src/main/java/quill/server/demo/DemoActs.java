package quill.server.demo;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.schedule.TypedTerm;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.CreditLetters;
import quill.server.dispatch.DispatchService;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.payments.PaymentsService;
import quill.server.payments.Undoing;

/** Does one act of the script, as the owner or a client would: through the services, and on the processor's page. */
@Component
class DemoActs {
    private static final Map<String, String> CARDS = Map.of(
            "approved", "9901000000000019",
            "poor", "9902000000000026",
            "refused", "9904000000000040",
            "contests", "9907000000000070",
            "keeps", "9901000000000019",
            "debit", "");

    private final Map<String, DocumentId> byName = new HashMap<>();
    private final CreditLetters letters;
    private final Undoing undoing;
    private final Others others;
    private final InvoicesService invoices;
    private final DispatchService dispatch;
    private final PaymentsService payments;
    private final CardOrders orders;
    private final Debts debts;

    DemoActs(
            CreditLetters letters,
            Undoing undoing,
            Others others,
            InvoicesService invoices,
            DispatchService dispatch,
            PaymentsService payments,
            CardOrders orders,
            Debts debts) {
        this.letters = letters;
        this.undoing = undoing;
        this.others = others;
        this.invoices = invoices;
        this.dispatch = dispatch;
        this.payments = payments;
        this.orders = orders;
        this.debts = debts;
    }

    /** What is not of the everyday kind. */
    @Component
    record Others(
            DemoDocuments documents,
            DemoSending sending,
            DemoQuotes quotes,
            DemoJobs jobs,
            DemoLinks links,
            DemoSaved saved,
            StandInForms forms) {}

    void play(DemoScript.Act act, DemoBeginning.Begun begun) {
        boolean byOwner = !(act instanceof DemoScript.Pays p && CARDS.containsKey(p.way()))
                && !(act instanceof DemoScript.ByLink l && l.who() != null);
        SecurityContextHolder.getContext()
                .setAuthentication(
                        byOwner ? new UsernamePasswordAuthenticationToken(DemoYear.OWNER, "", List.of()) : null);
        try {
            perform(act, begun);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }

    private void perform(DemoScript.Act act, DemoBeginning.Begun begun) {
        if (act instanceof DemoScript.Bill bill) {
            bill(bill, begun);
        } else if (act instanceof DemoScript.Pays pays) {
            pay(pays);
        } else if (act instanceof DemoScript.TakenBack back) {
            takeBack(back);
        } else if (act instanceof DemoScript.Special special) {
            others.documents().play(special.what(), begun.taxes());
        } else if (act instanceof DemoScript.Sending send) {
            others.sending().play(send.what(), byName.get(send.invoice()));
        } else if (act instanceof DemoScript.Offer offer) {
            others.quotes().play(offer.what(), begun);
        } else if (act instanceof DemoScript.Job job) {
            others.jobs().play(job.what(), begun);
        } else if (act instanceof DemoScript.ByLink linked) {
            byLink(linked, begun);
        } else if (act instanceof DemoScript.Kept kept) {
            others.saved().play(kept.client());
        } else if (act instanceof DemoScript.Slip slip) {
            slip(slip);
        }
    }

    private void byLink(DemoScript.ByLink linked, DemoBeginning.Begun begun) {
        if (linked.who() == null) {
            others.links().make(begun.taxes().get("21"));
        } else {
            others.links().pay("demo-by-link-" + linked.on(), linked.who(), linked.instrument());
        }
    }

    private void takeBack(DemoScript.TakenBack back) {
        DocumentId draft = letters.credit(
                        byName.get(back.invoice()), Crediting.Wanted.rest(back.reason(), back.replacement() != null))
                .draftId();
        if (draft != null) {
            dispatch.issueAndSend(draft, 1);
            byName.put(back.replacement(), draft);
        }
    }

    private void slip(DemoScript.Slip slip) {
        Document invoice = invoices.invoice(byName.get(slip.invoice()));
        var wrong = payments.record(new PaymentsService.Recorded(
                "demo-slip-" + slip.invoice(),
                invoice.clientId(),
                invoice.id(),
                "TRANSFER",
                slip.amount(),
                slip.on().toString(),
                ""));
        undoing.undo(wrong.id(), "entered for the wrong client");
    }

    private void bill(DemoScript.Bill bill, DemoBeginning.Begun begun) {
        List<TypedLine> lines = new ArrayList<>();
        for (String line : bill.lines()) {
            String[] part = line.split("\\|");
            lines.add(new TypedLine(
                    part[0],
                    part[1],
                    part[2],
                    part[3],
                    part.length > 5 ? part[5] : "",
                    List.of(begun.taxes().get(part[4])),
                    null,
                    null,
                    null,
                    DemoCatalogue.categoryOf(part[0])));
        }
        List<TypedTerm> terms = new ArrayList<>();
        for (String term : bill.terms().split(" ")) {
            String[] part = term.split("@");
            terms.add(new TypedTerm(part[0].startsWith("d"), part[0].replace("d", ""), part[1]));
        }
        TypedDraft draft = TypedDraft.in("EUR")
                .client(
                        bill.client() == null
                                ? null
                                : begun.clients().get(bill.client()).id())
                .subject(bill.subject())
                .supplyDate(bill.on().minusDays(bill.issued() ? 3 : 0).toString())
                .lines(lines)
                .schedule(terms)
                .build();
        DocumentId id = invoices.begin(draft);
        if (bill.issued()) {
            dispatch.issueAndSend(id, 1);
        }
        byName.put(bill.name(), id);
    }

    private void pay(DemoScript.Pays pays) {
        Document invoice = invoices.invoice(byName.get(pays.invoice()));
        List<StoredInstallment> open = debts.of(invoice.id()).stream()
                .filter(i -> i.open().isPositive())
                .toList();
        Set<Long> ids = (pays.what().equals("first") ? open.subList(0, 1) : open)
                .stream().map(StoredInstallment::id).collect(Collectors.toSet());
        Money amount = Amounts.sum(
                open.get(0).amount().getCurrencyUnit(),
                open.stream()
                        .filter(i -> ids.contains(i.id()))
                        .map(StoredInstallment::open)
                        .toList());
        if (CARDS.containsKey(pays.way())) {
            String payAt = orders.payAt(
                    invoice,
                    ids,
                    amount,
                    Payer.NONE,
                    pays.way().equals("keeps") ? others.saved().keeping(invoice) : HowPaid.PLAIN);
            if (pays.way().equals("debit")) {
                others.forms().send(payAt + "/debit", Map.of("account", "GOOD", "agreed", "true"));
            } else {
                others.forms().send(payAt, Map.of("number", CARDS.get(pays.way()), "expiry", "09/29"));
            }
            orders.payerIsBack(invoice.id());
            return;
        }
        payments.record(new PaymentsService.Recorded(
                "demo-pays-" + pays.invoice() + "-" + pays.on(),
                invoice.clientId(),
                invoice.id(),
                pays.way(),
                pays.what().matches("[0-9.]+") ? pays.what() : Amounts.plain(amount),
                pays.dated().toString(),
                ""));
    }
}
