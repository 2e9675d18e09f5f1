package quill.server.notices;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.server.Server;
import quill.server.common.Amount;
import quill.server.common.ConflictException;
import quill.server.common.News;

/** What the business hears of: each thing once, by itself or of an evening, and nothing on a day without news. */
public class NoticesTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private Notices notices;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        notices = server.bean(Notices.class);
        client = server.client("News Maker", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private void happens(News.Kind kind, String text, String sum) {
        News news = new News(kind, text, sum == null ? null : new Amount(sum, "EUR"), client, null);
        server.bean(TransactionTemplate.class).executeWithoutResult(s -> notices.happened(news));
    }

    private List<String> mails() {
        return server.jdbc().sql("""
                        SELECT m.to_address || ': ' || m.subject || ' ' || t.text
                          FROM message m JOIN message_text t ON t.message_id = m.id WHERE m.kind = 'notice' ORDER BY m.id
                        """).query(String.class).list();
    }

    @Test
    public void ofAnEveningOneLetterSaysAllAndNothingTwice() {
        happens(News.Kind.PAID, "News Maker paid €100.00 by card.", "100.00");
        happens(News.Kind.DECLINED, "A card of News Maker was declined: not enough funds.", "50.00");
        server.moveTo(BEGIN, LocalTime.of(17, 59));
        notices.evening();
        assertThat(mails()).isEmpty();
        server.moveTo(BEGIN, LocalTime.of(18, 0));
        notices.evening();
        notices.evening();
        assertThat(mails())
                .singleElement()
                .satisfies(m -> assertThat(m)
                        .startsWith("post@workshop.example: 2 things happened")
                        .contains("News Maker paid €100.00 by card.\n", "not enough funds.\n"));
        server.moveTo(BEGIN.plusDays(1), LocalTime.of(19, 0));
        notices.evening();
        assertThat(mails()).as("nothing happened on that day").hasSize(1);
        assertThat(notices.after(0, 5))
                .extracting(Notice::text)
                .first()
                .asString()
                .contains("declined");
    }

    @Test
    public void eachByItselfGoesAtOnceToTheAddressOfChoice() {
        notices.change(
                new NoticeSetting(NoticeSetting.Mail.EACH, "odile@home.example", "18:00", List.of(News.Kind.PAID), 0));
        happens(News.Kind.PAID, "News Maker paid €100.00 by card.", "100.00");
        happens(News.Kind.DECLINED, "A card was declined.", "50.00");
        assertThat(mails())
                .singleElement()
                .satisfies(m -> assertThat(m)
                        .startsWith("odile@home.example: Money came: €100.00 News Maker paid €100.00 by card."));
        assertThat(notices.after(0, 5)).hasSize(1);
        notices.change(new NoticeSetting(NoticeSetting.Mail.EVENING, "", "6:30", List.of(News.Kind.PAID), 1));
        server.moveTo(BEGIN.plusDays(1), LocalTime.of(19, 0));
        notices.evening();
        assertThat(mails())
                .as("what was mailed by itself is not in the summary")
                .hasSize(1);
    }

    @Test
    public void whatIsWrongIsSaidBesideItsFieldAndTwoWindowsLoseNothing() {
        assertThatThrownBy(() -> notices.change(new NoticeSetting(null, "nobody", "late", null, 0)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(p -> p.field())
                                .containsExactly("address", "evening", "mail"));
        NoticeSetting never = new NoticeSetting(NoticeSetting.Mail.NEVER, "", "18:00", List.of(), 0);
        notices.change(never);
        assertThatThrownBy(() -> notices.change(never)).isInstanceOf(ConflictException.class);
        happens(News.Kind.PAID, "Unheard.", null);
        assertThat(notices.after(0, 5)).isEmpty();
    }
}
