package quill.server.people;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.tax.TaxRounding;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.people.PeopleService.Person;

/** Signing in and out, the first run, and the passphrase. */
@RestController
@RequestMapping("/api")
class SessionController {
    private final PeopleService people;
    private final BusinessService business;
    private final BusinessClock clock;
    private final SecurityContextRepository contexts;
    private final QuillSettings settings;

    SessionController(
            PeopleService people,
            BusinessService business,
            BusinessClock clock,
            SecurityContextRepository contexts,
            QuillSettings settings) {
        this.people = people;
        this.business = business;
        this.clock = clock;
        this.contexts = contexts;
        this.settings = settings;
    }

    record SignIn(String email, String passphrase) {}

    record FirstRun(
            String ownerName,
            String ownerEmail,
            String passphrase,
            String businessName,
            String businessEmail,
            String address,
            String currency,
            String zone,
            boolean registered,
            String taxNumber,
            String taxName,
            String taxRate) {}

    record NewPassphrase(String current, String next) {}

    /** What a page has to know before anything else. */
    record Session(
            boolean setUp,
            boolean signedIn,
            @Schema(nullable = true) String person,
            @Schema(nullable = true) String business,
            LocalDate today,
            String time,
            boolean demo,
            @Schema(nullable = true) String standIns) {}

    @GetMapping("/session")
    Session session(@Schema(hidden = true) Principal principal) {
        return view(principal == null ? null : principal.getName());
    }

    @PostMapping("/session")
    Session signIn(@RequestBody SignIn signIn, HttpServletRequest request, HttpServletResponse response) {
        Person person = people.signIn(signIn.email(), signIn.passphrase(), request.getRemoteAddr());
        enter(person, request, response);
        return view(person.name());
    }

    @DeleteMapping("/session")
    Session signOut(HttpServletRequest request) {
        if (request.getSession(false) != null) {
            request.getSession(false).invalidate();
        }
        return view(null);
    }

    @PostMapping("/first-run")
    @Transactional
    Session firstRun(@RequestBody FirstRun f, HttpServletRequest request, HttpServletResponse response) {
        Person person = people.makeOwner(f.ownerEmail(), f.ownerName(), f.passphrase());
        business.setUp(new Business(
                f.businessName(),
                "",
                f.address(),
                "",
                f.businessEmail(),
                f.taxNumber(),
                f.registered(),
                f.currency(),
                f.zone(),
                TaxRounding.PER_TAX,
                "",
                "",
                "{year}-{seq}",
                "C-{year}-{seq}",
                30,
                "",
                false,
                1));
        if (f.registered()) {
            business.addTax(new BusinessService.TypedTax(f.taxName(), f.taxRate(), "S", false, ""));
        }
        enter(person, request, response);
        return view(person.name());
    }

    @PutMapping("/passphrase")
    void changePassphrase(
            @RequestBody NewPassphrase change, HttpServletRequest request, @Schema(hidden = true) Principal principal) {
        String email = (String) ((UsernamePasswordAuthenticationToken) principal).getCredentials();
        people.changePassphrase(email, change.current(), change.next(), request.getRemoteAddr());
    }

    private void enter(Person person, HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(new UsernamePasswordAuthenticationToken(person.name(), person.email(), List.of()));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
    }

    private Session view(String person) {
        return new Session(
                !people.isEmpty(),
                person != null,
                person,
                person == null ? null : business.find().map(Business::name).orElse(null),
                clock.today(),
                LocalTime.now(clock).truncatedTo(ChronoUnit.MINUTES).toString(),
                settings.demo(),
                settings.demo() ? settings.standInsUrl() : null);
    }
}
