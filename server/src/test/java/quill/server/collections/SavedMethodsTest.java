package quill.server.collections;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.LetterKind;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.clearing.OnTheWay;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.payments.Payer;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/** Cards are kept, used within what was agreed, removed, and asked for. */
public class SavedMethodsTest extends SavedSuite {
    @Test
    public void whatPaysIsKeptWhereThatWasTickedAndNowhereElse() {
        SavedMethod kept = keep(true, "250.00");
        assertThat(kept.with().words()).isEqualTo("Test card ending 0019");
        assertThat(kept.with().expires().words()).isEqualTo("09/29");
        assertThat(kept.agreed().words())
                .isEqualTo("It is kept for what I pay Test Workshop later, and Test Workshop may take open sums of my"
                        + " invoices from it, at most €250.00 at a time.");
        Document plain = issue();
        String address = server.bean(CardOrders.class).payAt(plain, Set.copyOf(parts(plain)), HUNDRED, Payer.NONE);
        processor.pay(address.substring(address.lastIndexOf('/') + 1));
        round();
        assertThat(methods.ofClient(client)).hasSize(1);
        round();
        assertThat(payments()).isEqualTo(2);
    }

    @Test
    public void nothingIsKeptForSomebodyElseNorWhereItIsSwitchedOff() {
        Document invoice = issue();
        assertThatThrownBy(() -> views.onPage(invoice, ticked(false, ""), true)).isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> views.onPage(invoice, ticked(true, "-1"), false))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("keep.most"));
        assertThatThrownBy(() -> views.atHand(invoice, false, ticked(true, ""), " "))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("keep.said"));
        methods.change(new SavedMethods.SavedSetting(false, 14, 1));
        assertThatThrownBy(() -> views.onPage(invoice, ticked(false, ""), false))
                .isInstanceOf(ConflictException.class);
        assertThatThrownBy(() -> methods.change(new SavedMethods.SavedSetting(true, 14, 1)))
                .isInstanceOf(ConflictException.class);
        assertThatThrownBy(() -> methods.change(new SavedMethods.SavedSetting(true, 61, 2)))
                .isInstanceOf(RefusedException.class);
    }

    /** Ten windows press at once: one payment; each is told the truth. */
    @Test
    public void pressedTwiceItIsTakenOnce() throws Exception {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        ConcurrentLinkedQueue<String> told = new ConcurrentLinkedQueue<>();
        List<Thread> windows = java.util.stream.IntStream.range(0, 10)
                .mapToObj(i -> new Thread(() -> {
                    try {
                        told.add(payFrom(invoice, kept).name());
                    } catch (ConflictException | RefusedException e) {
                        told.add(e.getMessage());
                    }
                }))
                .toList();
        windows.forEach(Thread::start);
        for (Thread window : windows) {
            window.join();
        }
        round();
        assertThat(told).hasSize(10).contains("PAID");
        assertThat(processor.chargesOf(kept.token())).isEqualTo(1);
        assertThat(payments()).isEqualTo(2);
        assertThat(open(invoice)).isEqualTo("0.00");
        assertThat(server.bean(BooksService.class)
                        .balanceOf(client, HUNDRED.getCurrencyUnit())
                        .isZero())
                .isTrue();
    }

    @Test
    public void theBusinessTakesWithinWhatWasAgreedOnly() {
        SavedMethod kept = keep(true, "100.00");
        Document invoice = issue();
        assertThat(taking.collect(invoice.id(), List.of(), "100.00", kept.id())).isEqualTo(CardOrders.Taken.PAID);
        DocumentId large = server.issue(client, "100.01", "100%@3", null);
        assertThatThrownBy(() -> taking.collect(large, List.of(), "100.01", kept.id()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("EUR 100.00 at a time");
        assertThatThrownBy(() -> taking.collect(large, List.of(), "100.00", kept.id()))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("100.01 now");
        assertThatThrownBy(() -> taking.collect(invoice.id(), List.of(), "100.00", kept.id()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("open any more");
        ClientId other = server.client("Somebody Else", true);
        DocumentId theirs = server.issue(other, "10.00", "100%@3", null);
        assertThatThrownBy(() -> taking.collect(theirs, List.of(), "10.00", kept.id()))
                .isInstanceOf(NotFoundException.class);
        assertThat(processor.chargesOf(kept.token())).isEqualTo(1);
    }

    @Test
    public void withoutThatAgreementTheBusinessTakesNothing() {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        assertThatThrownBy(() -> taking.collect(invoice.id(), List.of(), "100.00", kept.id()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("alone");
        assertThat(open(invoice)).isEqualTo("100.00");
    }

    @Test
    public void whatIsRefusedIsToldAndBooksNothing() {
        SavedMethod kept = keep(false, "");
        processor.refuse(kept.token(), "refused by the bank");
        Document invoice = issue();
        assertThatThrownBy(() -> payFrom(invoice, kept))
                .isInstanceOf(CardOrders.NotTaken.class)
                .hasMessage("Test card ending 0019 was refused: refused by the bank. Nothing was taken.");
        round();
        assertThat(open(invoice)).isEqualTo("100.00");
        assertThat(payments()).isEqualTo(1);
        assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
    }

    /** The processor took it, and its answer was lost: nobody takes it twice, and it is found. */
    @Test
    public void aLostAnswerTakesNothingTwice() {
        SavedMethod kept = keep(false, "");
        Document invoice = issue();
        String before = server.bean(CardOrders.class).payAt(invoice, Set.copyOf(parts(invoice)), HUNDRED);
        assertThat(before).isNotEmpty();
        processor.silent(true);
        assertThatThrownBy(() -> payFrom(invoice, kept)).isInstanceOf(ConflictException.class);
        processor.silent(false);
        assertThat(payFrom(invoice, kept)).isEqualTo(CardOrders.Taken.PAID);
        round();
        assertThat(payments()).isEqualTo(2);
        Document again = issue();
        payFrom(again, kept);
        assertThat(processor.chargesOf(kept.token())).isEqualTo(2);
        // Whoever had the first page open finds it withdrawn.
        assertThat(processor.state(before.substring(before.lastIndexOf('/') + 1)))
                .isEqualTo("withdrawn");
    }

    @Test
    public void aRemovedCardIsForgottenAndUsedNoMore() {
        SavedMethod kept = keep(true, "");
        Document invoice = issue();
        ClientId other = server.client("Somebody Else", true);
        assertThatThrownBy(() -> methods.remove(other, kept.id())).isInstanceOf(NotFoundException.class);
        processor.silent(true);
        methods.remove(client, kept.id());
        assertThat(methods.ofClient(client)).isEmpty();
        assertThatThrownBy(() -> taking.collect(invoice.id(), List.of(), "100.00", kept.id()))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("not kept any more");
        assertThat(methods.find(kept.id()).state()).isEqualTo(SavedMethod.State.REMOVING);
        processor.silent(false);
        round();
        assertThat(methods.find(kept.id()).state()).isEqualTo(SavedMethod.State.REMOVED);
        assertThat(processor.forgot(kept.token())).isTrue();
        methods.remove(client, kept.id());
        assertThat(processor.chargesOf(kept.token())).isZero();
    }

    @Test
    public void aClientIsAskedOnceAndGivesACard() {
        assertThat(requests.ask(client)).isTrue();
        assertThat(requests.ask(client)).isTrue();
        assertThat(server.bean(Correspondence.class).ofClient(client, ""))
                .singleElement()
                .satisfies(m -> assertThat(m.subject()).contains("a card or bank account"));
        MethodRequest asked = requests.asked(client).orElseThrow();
        assertThat(server.bean(MethodCases.class).latest(LetterKind.ASK_TO_KEEP, client))
                .singleElement()
                .satisfies(c -> assertThat(c.facts().get().values().toString()).contains(requests.page(asked)));
        String token = asked.token();
        String at = keeping.begin(
                token,
                views.ticked(ticked(true, ""), HUNDRED.getCurrencyUnit(), List.of())
                        .orElseThrow());
        assertThat(keeping.begin(
                        token,
                        views.ticked(ticked(true, ""), HUNDRED.getCurrencyUnit(), List.of())
                                .orElseThrow()))
                .isEqualTo(at);
        assertThat(keeping.back(token).state()).isEqualTo(MethodRequest.State.ASKED);
        processor.keep(at.substring(at.lastIndexOf('/') + 1));
        round();
        assertThat(keeping.back(token).state()).isEqualTo(MethodRequest.State.GIVEN);
        assertThat(methods.ofClient(client))
                .singleElement()
                .matches(m -> m.agreed().agreement().collects());
        assertThatThrownBy(() -> keeping.begin(
                        token,
                        views.ticked(ticked(true, ""), HUNDRED.getCurrencyUnit(), List.of())
                                .orElseThrow()))
                .hasMessageContaining("given already");
        Document invoice = issue();
        assertThat(taking.collect(
                        invoice.id(),
                        List.of(),
                        "100.00",
                        methods.ofClient(client).get(0).id()))
                .isEqualTo(CardOrders.Taken.PAID);
    }

    @Test
    public void whatIsAskedNoMoreIsNotGiven() {
        ClientId silent = server.client("No Address", false);
        assertThat(requests.ask(silent)).isFalse();
        MethodRequest asked = requests.asked(silent).orElseThrow();
        assertThatThrownBy(() -> requests.withdraw(client, asked.id())).isInstanceOf(NotFoundException.class);
        requests.withdraw(silent, asked.id());
        assertThat(requests.asked(silent)).isEmpty();
        assertThatThrownBy(() -> keeping.begin(
                        asked.token(),
                        views.ticked(ticked(false, ""), HUNDRED.getCurrencyUnit(), List.of())
                                .orElseThrow()))
                .hasMessageContaining("asked for no more");
        assertThatThrownBy(() -> keeping.back("no-such-token")).isInstanceOf(NotFoundException.class);
    }
}
