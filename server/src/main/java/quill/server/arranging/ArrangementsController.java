package quill.server.arranging;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.DocumentId;
import quill.core.schedule.Installment;
import quill.core.schedule.TypedTerm;
import quill.server.common.Amount;
import quill.server.debts.AgreedTerms;
import quill.server.dispatch.ArrangedLetters;
import quill.server.dispatch.LetterLook;
import quill.server.dispatch.Slip;
import quill.server.documents.Reckoning;
import quill.server.invoices.InvoicesService;

/** Installments agreed anew, and milestones, over HTTP. */
@RestController
@RequestMapping("/api")
class ArrangementsController {
    private final Arrangements service;
    private final AgreedTerms terms;
    private final ArrangedLetters letters;
    private final InvoicesService invoices;
    private final LetterLook look;

    ArrangementsController(
            Arrangements service,
            AgreedTerms terms,
            ArrangedLetters letters,
            InvoicesService invoices,
            LetterLook look) {
        this.service = service;
        this.terms = terms;
        this.letters = letters;
        this.invoices = invoices;
        this.look = look;
    }

    record RearrangeAndTell(
            Arrangements.Rearrangement wanted,
            @Schema(nullable = true) Slip slip) {
        /** Nothing wanted is no installment, which is refused by name. */
        RearrangeAndTell {
            wanted = wanted == null ? new Arrangements.Rearrangement(List.of(), "", null) : wanted;
        }
    }

    record Then(Amount open, List<Reckoning.ReckonedInstallment> installments) {}

    /** @param told whether a letter goes */
    record Done(boolean told) {}

    /** @param on null for today */
    record Reached(
            @Schema(nullable = true) LocalDate on,
            @Schema(nullable = true) Slip slip) {}

    record MilestoneView(
            long id, String name, @Schema(nullable = true) LocalDate reachedOn, boolean undoable) {}

    record EarlierTerm(
            int position,
            Amount amount,
            @Schema(nullable = true) LocalDate dueOn,
            LocalDate from,
            LocalDate until) {}

    /** @param earlier what was agreed of its installments before */
    record Agreed(List<MilestoneView> milestones, List<EarlierTerm> earlier) {}

    /** An invoice's milestones, and what was agreed before of what it asks for. */
    @GetMapping("/invoices/{id}/agreed")
    Agreed agreed(@PathVariable DocumentId id) {
        return new Agreed(
                terms.milestones(id).stream()
                        .map(m -> new MilestoneView(m.id(), m.name(), m.reachedOn(), m.undoable()))
                        .toList(),
                terms.earlier(id).stream()
                        .map(e -> new EarlierTerm(e.position(), Amount.of(e.amount()), e.dueOn(), e.from(), e.until()))
                        .toList());
    }

    /** @param schedule how it is agreed now */
    record ToRearrange(Amount open, List<TypedTerm> schedule) {}

    /** What can be rearranged, and how it is agreed now. */
    @GetMapping("/invoices/{id}/rearrangement")
    ToRearrange toRearrange(@PathVariable DocumentId id) {
        Arrangements.ToArrange now = service.toArrange(id);
        return new ToRearrange(Amount.of(now.sum()), now.now());
    }

    /** How what is open would be paid. Stores nothing. */
    @PostMapping("/invoices/{id}/rearrangement/look")
    Then look(@PathVariable DocumentId id, @RequestBody Arrangements.Rearrangement wanted) {
        Money open = service.toArrange(id).sum();
        return new Then(
                Amount.of(open),
                service.look(id, wanted).stream().map(i -> view(i, open)).toList());
    }

    private static Reckoning.ReckonedInstallment view(Installment i, Money open) {
        return new Reckoning.ReckonedInstallment(
                i.position(),
                false,
                Amount.of(i.amount()),
                i.dueOn(),
                i.due().words(),
                Amount.thousandths(i.amount(), open),
                i.why());
    }

    /** The letter that would tell the client. */
    @PostMapping("/invoices/{id}/rearrangement/letter")
    LetterLook.ShownLetter letter(@PathVariable DocumentId id, @RequestBody RearrangeAndTell asked) {
        return look.at(
                letters.recipient(invoices.invoice(id)),
                asked.slip(),
                slip -> service.rearrange(id, asked.wanted(), slip));
    }

    @PostMapping("/invoices/{id}/rearrangement")
    Done rearrange(@PathVariable DocumentId id, @RequestBody RearrangeAndTell asked) {
        return new Done(service.rearrange(id, asked.wanted(), asked.slip()) != null);
    }

    /** The letter that would tell the client of a milestone. */
    @PostMapping("/milestones/{id}/letter")
    LetterLook.ShownLetter letterOf(@PathVariable long id, @RequestBody Reached asked) {
        return look.at(
                letters.recipient(invoices.invoice(terms.milestone(id).documentId())),
                asked.slip(),
                slip -> service.reach(id, asked.on(), slip));
    }

    /** The letter that would say that a milestone was not reached after all. */
    @PostMapping("/milestones/{id}/undoing/letter")
    LetterLook.ShownLetter letterOfUndoing(@PathVariable long id, @RequestBody Reached asked) {
        return look.at(
                letters.recipient(invoices.invoice(terms.milestone(id).documentId())),
                asked.slip(),
                slip -> service.unreach(id, slip));
    }

    @PostMapping("/milestones/{id}/reaching")
    Done reach(@PathVariable long id, @RequestBody Reached asked) {
        return new Done(service.reach(id, asked.on(), asked.slip()) != null);
    }

    @PostMapping("/milestones/{id}/undoing")
    Done unreach(@PathVariable long id, @RequestBody Reached asked) {
        return new Done(service.unreach(id, asked.slip()) != null);
    }
}
