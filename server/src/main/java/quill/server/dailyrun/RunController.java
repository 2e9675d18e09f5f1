package quill.server.dailyrun;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The log of the daily run, and running what is due without waiting for the timer. */
@RestController
@RequestMapping("/api/runs")
class RunController {
    private static final int PAGE = 100;
    private final DailyRun run;

    RunController(DailyRun run) {
        this.run = run;
    }

    @GetMapping
    List<LoggedAct> log(@RequestParam(required = false) Long before) {
        return run.log(before == null ? Long.MAX_VALUE : before, PAGE);
    }

    @PostMapping
    DailyRun.Summary runNow() {
        return run.catchUp();
    }
}
