package quill.server.business;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;

/** Says which day a text is understood as, while it is typed. */
@RestController
@RequestMapping("/api")
class DaysController {
    private final BusinessClock clock;

    DaysController(BusinessClock clock) {
        this.clock = clock;
    }

    /** A day, and the same in words. */
    record UnderstoodDay(LocalDate day, String words) {}

    /** @param lean coming, past or near: which of several days is meant @throws RefusedException naming {@code text} */
    @GetMapping("/days")
    UnderstoodDay understood(@RequestParam String text, @RequestParam(defaultValue = "near") String lean) {
        List<Problem> problems = new ArrayList<>();
        LocalDate day = LooseDate.read("text", text, clock.today(), leaning(lean), problems);
        if (day == null) {
            throw new RefusedException(problems);
        }
        return new UnderstoodDay(day, Texts.day(day));
    }

    private static LooseDate.Lean leaning(String lean) {
        return switch (lean) {
            case "coming" -> LooseDate.Lean.COMING;
            case "past" -> LooseDate.Lean.PAST;
            case "near" -> LooseDate.Lean.NEAR;
            default -> throw new RefusedException("lean", lean, "must be coming, past or near");
        };
    }
}
