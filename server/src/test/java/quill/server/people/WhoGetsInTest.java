package quill.server.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.Caller;
import quill.server.Server;
import quill.server.common.SystemTime;
import quill.server.edge.Sender;

/** Sign-ins, tries, passphrases. */
public class WhoGetsInTest {
    private static final String EMAIL = "odile@larkmoor.example";
    private static final String RIGHT = "felt hammers and copper strings";
    private Server server;
    private PeopleService people;

    @BeforeClass
    public void start() {
        server = new Server();
        people = server.bean(PeopleService.class);
        people.makeOwner(EMAIL, "Odile Farrant", RIGHT);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static PeopleService.From from(String sender) {
        return new PeopleService.From(sender, null, "test");
    }

    @Test
    public void differentSpellingsOfAnAddressAreOneAddress() {
        String[] spellings = {EMAIL, " " + EMAIL, EMAIL.toUpperCase(), EMAIL + "  ", "\t" + EMAIL};
        for (String spelling : spellings) {
            assertThatThrownBy(() -> people.signIn(spelling, "wrong", from("10.0.0.1")))
                    .hasMessageContaining("do not fit");
        }
        assertThatThrownBy(() -> people.signIn(EMAIL + " ", "wrong", from("10.0.0.1")))
                .hasMessageContaining("too many tries; wait");
    }

    /** An attacker makes the owner wait, never for good; a browser that signed in before does not wait at all. */
    @Test
    public void nobodyIsLockedOutForGood() {
        SystemTime time = server.bean(SystemTime.class);
        for (int i = 0; i < 5; i++) {
            assertThatThrownBy(() -> people.signIn(EMAIL, "wrong", from("10.0.0.2")))
                    .isInstanceOf(RefusedException.class);
        }
        assertThatThrownBy(() -> people.signIn(EMAIL, RIGHT, from("10.0.0.2"))).hasMessageContaining("too many");
        assertThat(people.signIn(EMAIL, RIGHT, new PeopleService.From("10.0.0.2", "a-known-browser", "test"))
                        .name())
                .isEqualTo("Odile Farrant");
        time.suppose(Duration.ofSeconds(31));
        assertThat(people.signIn(EMAIL, RIGHT, from("10.0.0.2")).name()).isEqualTo("Odile Farrant");
        time.suppose(Duration.ZERO);
    }

    @Test
    public void aLongAddressIsRememberedByAShortKey() {
        String long4MegaBytes = "x".repeat(4_000_000);
        assertThatThrownBy(() -> people.signIn(long4MegaBytes, "wrong", from("10.0.0.3")))
                .isInstanceOf(RefusedException.class);
        assertThat(server.jdbc()
                        .sql("SELECT MAX(LENGTH(who)) FROM access_log")
                        .query(Integer.class)
                        .single())
                .isLessThan(200);
    }

    @DataProvider
    public Object[][] weak() {
        return new Object[][] {
            {"123456789012", "common word"},
            {"            ", "blanks"},
            {EMAIL, "own name or address"},
            {"Odile Farrant", ""},
            {"aaaaaaaaaaaaaaaa", "repeats"},
            {"password1234", ""},
            {"qwertyuiop[]", ""},
            {"short", "12"},
        };
    }

    @Test(dataProvider = "weak")
    public void passphrasesThatAreSoonGuessedAreRefusedWithAReason(String passphrase, String reason) {
        List<Problem> problems = new ArrayList<>();
        PassphraseRules.check("passphrase", passphrase, List.of(EMAIL, "Odile Farrant"), problems);
        assertThat(problems)
                .singleElement()
                .satisfies(p -> assertThat(p.message()).contains(reason));
    }

    @Test
    public void fourOrFiveWordsAreGood() {
        List<Problem> problems = new ArrayList<>();
        for (String good :
                List.of(RIGHT, "another long passphrase", "moth lantern river seven", "Klavierstimmer im Regen")) {
            PassphraseRules.check("passphrase", good, List.of(EMAIL), problems);
        }
        assertThat(problems).isEmpty();
    }

    @Test
    public void aPassphraseIsNeverHashedWithinATransaction() {
        var transaction = new org.springframework.transaction.support.TransactionTemplate(
                server.bean(org.springframework.transaction.PlatformTransactionManager.class));
        assertThatThrownBy(() -> transaction.execute(s -> people.signIn(EMAIL, RIGHT, from("10.0.0.4"))))
                .isInstanceOf(IllegalStateException.class);
    }

    /** Twelve hours without activity, where a page that asks by itself is none; fourteen days in all. */
    @Test
    public void aSessionEndsByIdlenessAndByAge() {
        SystemTime time = server.bean(SystemTime.class);
        server.setUp(java.time.LocalDate.of(2027, 3, 1));
        try {
            Caller idle = new Caller(server).signedIn(EMAIL, RIGHT);
            time.suppose(Duration.ofHours(11));
            assertThat(idle.get("/api/books", SessionAge.BY_ITSELF, "yes").statusCode())
                    .isEqualTo(200);
            time.suppose(Duration.ofHours(13));
            assertThat(idle.get("/api/books").statusCode()).isEqualTo(401);
            time.suppose(Duration.ZERO);
            Caller busy = new Caller(server).signedIn(EMAIL, RIGHT);
            for (int hours = 11; hours < 14 * 24; hours += 11) {
                time.suppose(Duration.ofHours(hours));
                assertThat(busy.get("/api/books").statusCode()).isEqualTo(200);
            }
            time.suppose(Duration.ofHours(14 * 24 + 1));
            assertThat(busy.get("/api/books").statusCode()).isEqualTo(401);
        } finally {
            time.suppose(Duration.ZERO);
        }
    }

    @Test
    public void behindTlsTheCookieTravelsOverNothingElse() {
        try (Server secure = new Server("--quill.public-url=https://bills.example")) {
            secure.bean(PeopleService.class).makeOwner(EMAIL, "Odile Farrant", RIGHT);
            Caller caller = new Caller(secure);
            caller.get("/api/session");
            List<String> cookies = caller.post(
                            "/api/session", "{\"email\":\"" + EMAIL + "\",\"passphrase\":\"" + RIGHT + "\"}")
                    .headers()
                    .allValues("Set-Cookie");
            assertThat(cookies)
                    .filteredOn(c -> c.startsWith("JSESSIONID"))
                    .singleElement()
                    .asString()
                    .contains("Secure", "HttpOnly", "SameSite=Lax");
        }
    }

    /** Only a proxy that the settings name is believed, and of what it says the last hop only. */
    @Test
    public void onlyANamedProxyIsBelieved() {
        try (Server proxied = new Server("--quill.proxies=127.0.0.1")) {
            for (Server each : List.of(server, proxied)) {
                new Caller(each).get("/api/public/none", "X-Forwarded-For", "10.9.9.9, 192.0.2.7");
            }
            proxied.bean(PeopleService.class).makeOwner(EMAIL, "Odile Farrant", RIGHT);
            String believed = from(proxied);
            assertThat(believed).contains("192.0.2.7").doesNotContain("10.9.9.9");
            assertThat(from(server)).contains("127.0.0.1").doesNotContain("192.0.2.7");
        }
    }

    private static String from(Server each) {
        Caller caller = new Caller(each);
        caller.get("/api/session");
        caller.send(
                "POST",
                "/api/session",
                "{\"email\":\"" + EMAIL + "\",\"passphrase\":\"" + RIGHT + "\"}",
                "X-Forwarded-For",
                "10.9.9.9, 192.0.2.7");
        return caller.get("/api/access-log").body();
    }

    @Test
    public void anIpv6AddressCountsAsItsNetwork() {
        assertThat(Sender.keyOf("2001:db8:1:2:3:4:5:6")).isEqualTo(Sender.keyOf("2001:db8:1:2::9"));
        assertThat(Sender.keyOf("2001:db8:1:2:3:4:5:6")).isNotEqualTo(Sender.keyOf("2001:db8:1:3::9"));
        assertThat(Sender.keyOf("::ffff:10.0.0.1")).isEqualTo(Sender.keyOf("10.0.0.1"));
        assertThat(Sender.keyOf("no address at all, and far too long to be one"))
                .isEqualTo("unknown");
    }
}
