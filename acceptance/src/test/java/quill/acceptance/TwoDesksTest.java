package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** Two browsers issue fifty drafts each at the same time: a hundred numbers, no gap, none twice. */
public class TwoDesksTest extends DemoSuite {
    private static final int EACH = 50;

    @Test
    public void aHundredNumbersHaveNoGapAndNoDouble() {
        Api api = Api.signedIn(app);
        long client = api.client("Two Desks");
        List<List<Long>> drafts = List.of(new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < 2 * EACH; i++) {
            drafts.get(i % 2)
                    .add(api.post("/api/invoices", api.draft(client, "10.00", "100%@30"))
                            .ok()
                            .path("id")
                            .asLong());
        }
        List<Page> desks = List.of(signIn(), signIn());
        for (int desk = 0; desk < 2; desk++) {
            desks.get(desk).navigate(app.url("/settings"));
            desks.get(desk)
                    .evaluate(
                            "ids => { window.going = " + ISSUE + "(ids) }",
                            drafts.get(desk).stream().map(String::valueOf).toList());
        }
        for (Page desk : desks) {
            assertThat(desk.evaluate("() => window.going")).isEqualTo(EACH);
            desk.context().close();
        }
        TreeSet<Integer> numbers = new TreeSet<>();
        for (List<Long> ids : drafts) {
            for (long id : ids) {
                JsonNode document =
                        api.get("/api/invoices/" + id).ok().path("issued").path("document");
                assertThat(numbers.add(Integer.parseInt(
                                document.path("number").asString().substring(5))))
                        .isTrue();
            }
        }
        assertThat(numbers).hasSize(2 * EACH);
        assertThat(numbers.last() - numbers.first()).isEqualTo(2 * EACH - 1);
    }

    /** Both pages issue as fast as they are answered, as their own buttons would. */
    private static final String ISSUE = """
            (async ids => {
              const token = decodeURIComponent(document.cookie.split('XSRF-TOKEN=')[1].split(';')[0]);
              const answers = await Promise.all(ids.map(id => fetch(`/api/invoices/${id}/issue`, {
                method: 'POST',
                headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                body: JSON.stringify({ version: 1 }),
              })));
              return answers.filter(a => a.ok).length;
            })""";
}
