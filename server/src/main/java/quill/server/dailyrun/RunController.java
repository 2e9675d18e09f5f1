package quill.server.dailyrun;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.id.ClientId;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;

/** The log of the daily run, and running what is due without waiting for the timer. */
@RestController
@RequestMapping("/api/runs")
class RunController {
    private static final int PAGE = 100;
    private final DailyRun run;
    private final ClientsService clients;

    RunController(DailyRun run, ClientsService clients) {
        this.run = run;
        this.clients = clients;
    }

    /** An act of the log. @param client the name of whom it was for */
    record LoggedActView(LoggedAct act, String client) {}

    @GetMapping
    List<LoggedActView> log(@RequestParam(required = false) Long before) {
        List<LoggedAct> acts = run.log(before == null ? Long.MAX_VALUE : before, PAGE);
        Map<ClientId, Client> byId =
                clients.some(acts.stream().map(LoggedAct::clientId).distinct().toList());
        return acts.stream()
                .map(a -> new LoggedActView(a, byId.get(a.clientId()).name()))
                .toList();
    }

    /** What a run came to. @param done how many acts of each kind */
    record Ran(int days, Map<String, Integer> done) {}

    @PostMapping
    Ran runNow() {
        DailyRun.Summary sum = run.catchUp();
        Map<String, Integer> done = new LinkedHashMap<>();
        sum.done().forEach((kind, count) -> done.put(kind.word(), count));
        return new Ran(sum.days(), done);
    }
}
