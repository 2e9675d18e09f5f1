package quill.server.business;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
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
    private final PublicHolidays holidays;

    DaysController(BusinessClock clock, PublicHolidays holidays) {
        this.clock = clock;
        this.holidays = holidays;
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

    /** Public holidays of a country that are to come within a year. @throws RefusedException naming {@code country} */
    @GetMapping("/holidays")
    List<PublicHolidays.PublicHoliday> holidays(@RequestParam String country) {
        if (!holidays.knows(country)) {
            throw new RefusedException("country", country, "no public holidays are known of this country");
        }
        LocalDate today = clock.today();
        return Stream.of(today.getYear(), today.getYear() + 1)
                .flatMap(year -> holidays.of(country, year).stream())
                .filter(h -> !h.day().isBefore(today) && h.day().isBefore(today.plusYears(1)))
                .toList();
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
