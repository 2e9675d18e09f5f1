package quill.server.dispatch;

import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.letter.Filled;
import quill.core.letter.LetterKind;
import quill.server.business.BankAccounts;
import quill.server.clients.Client;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.dispatch.ReminderLetter.Addressee;
import quill.server.dispatch.ReminderLetter.Transfer;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Writes reminders as HTML, as text and for paper, from the act that sends them. */
@Component
class ReminderLetters {
    private final ReminderFacts facts;
    private final LetterWriting writing;
    private final BankAccounts accounts;
    private final BusinessClock clock;

    ReminderLetters(ReminderFacts facts, LetterWriting writing, BankAccounts accounts, BusinessClock clock) {
        this.facts = facts;
        this.writing = writing;
        this.accounts = accounts;
        this.clock = clock;
    }

    /** A reminder in both forms, and as it is kept for its paper. */
    record Made(ReminderLetter letter, Written written) {}

    /** @param slip what the person who sends it changes, this once */
    Made write(Act.Reminder act, Client client, Slip slip) {
        ReminderFacts.Reminded r = facts.of(act, client);
        boolean payer = client.forReminders().payer();
        LetterKind kind = slip.isText() ? r.kind().asText() : r.kind();
        Filled filled = writing.filled(kind, payer, r.facts(), slip.once());
        List<Amount> totals = act.sums().stream().map(Amount::of).toList();
        List<LetterFacts.Paying> payings = r.facts().payings();
        ReminderLetter letter = new ReminderLetter(
                r.facts().from(),
                new Addressee(client.name(), client.forReminders().name(), client.address()),
                clock.today(),
                filled.subject(),
                filled.blocks(),
                r.rows(),
                totals,
                IntStream.range(0, totals.size())
                        .mapToObj(i -> transfer(payings.get(i), totals.get(i)))
                        .toList(),
                r.measures());
        return new Made(letter, writing.draw(kind, filled, r.facts()));
    }

    private Transfer transfer(LetterFacts.Paying paying, Amount sum) {
        return new Transfer(
                sum,
                paying.link(),
                paying.iban(),
                paying.iban().isEmpty()
                        ? ""
                        : accounts.business(sum.money().getCurrencyUnit())
                                .account()
                                .bic(),
                paying.reference(),
                paying.code());
    }
}
