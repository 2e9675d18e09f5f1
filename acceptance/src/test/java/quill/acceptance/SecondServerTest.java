package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.testng.annotations.Test;
import quill.http.Api;

/** Two at once on the same books would do things twice: the second refuses, and the first goes on. */
public class SecondServerTest extends DemoSuite {
    @Test
    public void aSecondServerOnTheSameBooksRefusesPlainly() {
        String before = app.log();
        assertThatThrownBy(() -> App.server(app.data, App.freePort(), standIns.port, App.freePort(), Map.of()))
                .hasMessageContaining("ended");
        String told = app.log().substring(before.length());
        assertThat(told)
                .contains("Rustic Quill is running already with these books")
                .contains("Use the one that is running, or end it first");
        assertThat(Api.signedIn(app).get("/api/today").status()).isEqualTo(200);
    }
}
