package quill.server.quotes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.dispatch.DepositFacts;
import quill.server.dispatch.DepositLetters;
import quill.server.dispatch.LetterLook;
import quill.server.documents.Document;
import quill.server.requests.Requests;

/** The letter that asks for money on an accepted quote can be looked at before it goes; looking asks for nothing. */
public class AskingLetterTest {
    private static final Money SUM = Money.of(CurrencyUnit.EUR, new BigDecimal("800.00"));

    private Server server;
    private Document quote;

    @BeforeClass
    public void accept() {
        server = new Server();
        server.setUp(LocalDate.of(2027, 3, 1));
        server.account();
        server.registered(TaxRounding.PER_TAX, "BE0123456749");
        String tax = server.tax("high", "21", "S", false, "");
        QuotesService quotes = server.bean(QuotesService.class);
        DocumentId id = quotes.begin(TypedDraft.in("EUR")
                .client(server.client("Ida Corrow", true))
                .subject("the restoration of your grand")
                .lines(List.of(new TypedLine("Restoration", "1", "", "6000.05", "", List.of(tax))))
                .schedule(List.of(new TypedTerm(false, "rest", "14")))
                .offer(new TypedOffer("", ""))
                .build());
        quote = server.bean(Answering.class)
                .acceptByHand(quotes.issue(id, 1), new Answering.Acceptance("Ida, on the telephone", List.of(), null));
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void itIsItemisedWithItsTaxes() {
        Requests requests = server.bean(Requests.class);
        DepositLetters letters = server.bean(DepositLetters.class);
        LetterLook.ShownLetter shown = server.bean(LetterLook.class).at(letters.recipient(quote), null, slip -> {
            long id = requests.ask("looked-at-1", quote, SUM, "the felt, ordered ahead")
                    .id();
            return letters.ask(quote, id, new DepositFacts.Asking(SUM, "the felt, ordered ahead", true), slip);
        });
        assertThat(shown.text())
                .contains("We ask you for €800.00: the felt, ordered ahead, for quote " + quote.number())
                .contains("Restoration: €6,000.05")
                .contains("high: €1,260.01")
                .contains("Total, as accepted: €7,260.06")
                .contains("Asked for now: the felt, ordered ahead: €800.00");
        assertThat(shown.notes()).isEmpty();
        assertThat(requests.on(quote).asked()).isEmpty();
    }

    @Test
    public void whatHasGoneCannotBeLookedAtAgain() {
        assertThatThrownBy(() -> server.bean(LetterLook.class)
                        .at(server.bean(DepositLetters.class).recipient(quote), null, slip -> null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("done already");
    }
}
