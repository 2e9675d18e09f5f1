package quill.server.dailyrun;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.chasing.ActCase;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.ReminderPlans;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;

/** Acts to come, ready to be shown. */
@Component
public class ActViews {
    private final Chasing chasing;
    private final ReminderPlans plans;
    private final ClientsService clients;
    private final DailyRun run;
    private final BusinessClock clock;

    ActViews(Chasing chasing, ReminderPlans plans, ClientsService clients, DailyRun run, BusinessClock clock) {
        this.chasing = chasing;
        this.plans = plans;
        this.clients = clients;
        this.run = run;
        this.clock = clock;
    }

    /** What happens by itself from the next run to a day, over all clients. */
    public List<ActView> until(LocalDate to) {
        return views(chasing.toCome(run.nextDay(), to));
    }

    /** Some acts, and where the rest begins. */
    public record Page(List<ActView> acts, String next) {}

    /** The same, of as many clients as come up with so many acts. */
    public Page page(LocalDate to, String after, int most) {
        Chasing.Page page = chasing.page(run.nextDay(), to, after, most);
        return new Page(views(page.acts()), page.next());
    }

    /** The same for some clients. */
    public List<ActView> until(Collection<ClientId> clientIds, LocalDate to) {
        return views(chasing.toCome(clientIds, run.nextDay(), to));
    }

    /** The same for one invoice of a client: its fees, and the letters that ask for it. */
    public List<ActView> ofInvoice(ClientId clientId, DocumentId invoiceId, LocalDate to) {
        return views(chasing.toCome(List.of(clientId), run.nextDay(), to).stream()
                .filter(a -> a.concerns(invoiceId))
                .toList());
    }

    private List<ActView> views(List<Act> acts) {
        String hour = plans.rules().plan().hour().toString();
        LocalDate today = clock.today();
        Map<ClientId, Client> byId =
                clients.some(acts.stream().map(Act::client).distinct().toList());
        return acts.stream()
                .map(a -> view(a, byId.get(a.client()).name(), hour, today))
                .toList();
    }

    private ActView view(Act act, String client, String hour, LocalDate today) {
        ActCase its = chasing.inHand(act);
        return new ActView(
                act.key().toString(),
                act.kind().word(),
                act.on(),
                hour,
                new ActView.About(act.client(), client, act.document(), its.words()),
                its.tone(),
                Amount.of(act.amount()),
                act.stop().name(),
                act.stop().words(),
                its.canDoNow(today),
                its.way(),
                act.why());
    }
}
