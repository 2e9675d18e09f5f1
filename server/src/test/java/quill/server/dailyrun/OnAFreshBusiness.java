package quill.server.dailyrun;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import quill.core.id.ClientId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.Agreement;
import quill.server.Server;
import quill.server.chasing.ActView;
import quill.server.chasing.Decisions;
import quill.server.debts.Debts;
import quill.server.latefees.FeePolicies;

/** A fresh business for each test, which charges 1% after 7 days of grace, on Monday 1 March 2027. */
class OnAFreshBusiness {
    static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    static final LocalTime HOUR = LocalTime.of(9, 0);
    static final TypedLateFeePolicy ONE_PERCENT =
            new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", false);

    Server server;
    DailyRun run;
    Decisions decisions;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        run = server.bean(DailyRun.class);
        decisions = server.bean(Decisions.class);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(ONE_PERCENT, "10", false, 0));
        run.catchUp();
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    /** To a day after the beginning: its list is written, and its hour comes. Days between are caught up. */
    void forward(int days) {
        LocalDate day = BEGIN.plusDays(days);
        server.moveTo(day, LocalTime.of(0, 5));
        run.catchUp();
        server.moveTo(day, HOUR);
        run.catchUp();
    }

    List<ActView> acts(LocalDate until) {
        return server.bean(ActViews.class).until(until);
    }

    int count(String table) {
        return server.jdbc()
                .sql("SELECT COUNT(*) FROM " + table)
                .query(Integer.class)
                .single();
    }

    String owes(ClientId client) {
        return agreement(client).byPostings().getAmount().toPlainString();
    }

    Agreement agreement(ClientId client) {
        return server.bean(Debts.class).agreement(client, CurrencyUnit.EUR);
    }
}
