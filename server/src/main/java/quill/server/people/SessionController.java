package quill.server.people;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.server.QuillSettings;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.business.Countries;
import quill.server.common.BusinessClock;
import quill.server.common.NotFoundException;
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
    private final Sessions sessions;
    private final KnownBrowsers browsers;
    private final AccessLog log;

    SessionController(
            PeopleService people,
            BusinessService business,
            BusinessClock clock,
            SecurityContextRepository contexts,
            QuillSettings settings,
            Sessions sessions,
            KnownBrowsers browsers,
            AccessLog log) {
        this.sessions = sessions;
        this.browsers = browsers;
        this.log = log;
        this.people = people;
        this.business = business;
        this.clock = clock;
        this.contexts = contexts;
        this.settings = settings;
    }

    record SignIn(String email, String passphrase) {}

    /** Who begins, and in whose name: what the first page of an empty installation asks for. */
    record FirstRun(FirstOwner owner, FirstBusiness business, FirstTax tax) {
        /** What is left out is empty. */
        FirstRun {
            owner = owner == null ? new FirstOwner("", "", "") : owner;
            business = business == null ? new FirstBusiness("", "", "", "", "", "", null) : business;
            tax = tax == null ? new FirstTax(false, "", "", "") : tax;
        }
    }

    record FirstOwner(String name, String email, String passphrase) {}

    record FirstBusiness(
            String name,
            String email,
            String address,
            @Schema(nullable = true) String country,
            String currency,
            String zone,
            @Schema(nullable = true) String mark) {}

    /** @param number where it is registered @param name of the tax that its lines begin with, as printed */
    record FirstTax(boolean registered, String number, String name, String rate) {}

    record NewPassphrase(String current, String next) {}

    record Prove(String passphrase) {}

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
        String address = signIn.email() == null ? "" : signIn.email().strip().toLowerCase(Locale.ROOT);
        String known = browsers.knownAs(request, address).orElse(null);
        Person person = people.signIn(address, signIn.passphrase(), Requests.from(request, known));
        enter(person, request, response);
        return view(person.name());
    }

    @DeleteMapping("/session")
    Session signOut(HttpServletRequest request) {
        if (request.getSession(false) != null && request.getUserPrincipal() != null) {
            PeopleService.From from = Requests.from(request, null);
            log.note("Signed out", Requests.email(request), from.sender(), from.browser());
            sessions.end(request.getSession(false));
        }
        return view(null);
    }

    /** The passphrase once more; it serves for one change of what matters, within five minutes. */
    @PostMapping("/session/proof")
    void prove(@RequestBody Prove proof, HttpServletRequest request) {
        String email = Requests.email(request);
        PeopleService.From from =
                Requests.from(request, browsers.knownAs(request, email).orElse(null));
        if (!people.proves(email, proof.passphrase(), from)) {
            throw new RefusedException("passphrase", "", "is not your passphrase");
        }
        sessions.proved(request.getSession(false));
    }

    /** Where this person is signed in, latest first. */
    @GetMapping("/sessions")
    List<Sessions.SessionView> sessions(HttpServletRequest request) {
        return sessions.all(request.getSession(false));
    }

    /** Ends one of them, and its open pages' streams. */
    @DeleteMapping("/sessions/{key}")
    List<Sessions.SessionView> end(@PathVariable String key, HttpServletRequest request) {
        if (!sessions.end(key)) {
            throw new NotFoundException("That session has ended already.");
        }
        PeopleService.From from = Requests.from(request, null);
        log.note("A session ended", Requests.email(request), from.sender(), from.browser());
        return sessions.all(request.getSession(false));
    }

    /** The latest sign-ins, failures and changes of what matters. */
    @GetMapping("/access-log")
    List<AccessLog.AccessLine> accessLog() {
        return log.latest();
    }

    /** What is usual in a country, before anything is set up. */
    @GetMapping("/first-run")
    Countries.Usual usual(@RequestParam String country) {
        return Countries.of(country);
    }

    @PostMapping("/first-run")
    Session firstRun(@RequestBody FirstRun f, HttpServletRequest request, HttpServletResponse response) {
        Person person = people.makeOwner(
                f.owner().email(),
                f.owner().name(),
                f.owner().passphrase(),
                Requests.from(request, null),
                () -> setUp(f.business(), f.tax()));
        enter(person, request, response);
        return view(person.name());
    }

    private void setUp(FirstBusiness b, FirstTax tax) {
        asAsked(field -> field.equals("taxNumber") ? "tax.number" : "business." + field, () -> {
            business.setUp(new Business(
                    b.name(),
                    "",
                    b.address(),
                    b.country() == null ? "" : b.country(),
                    b.email(),
                    tax.number(),
                    tax.registered(),
                    b.currency(),
                    b.zone(),
                    Business.TransferAccount.NONE,
                    Business.Habits.USUAL,
                    1));
            if (b.mark() != null) {
                business.changeMark(b.mark());
            }
        });
        if (tax.registered()) {
            asAsked(
                    field -> "tax." + field,
                    () -> business.addTax(new BusinessService.TypedTax(tax.name(), tax.rate(), "S", false, "")));
        }
    }

    /** What is refused is named as this page asks for it. */
    private static void asAsked(UnaryOperator<String> field, Runnable act) {
        try {
            act.run();
        } catch (RefusedException e) {
            throw new RefusedException(
                    e.problems().stream().map(p -> p.at(field.apply(p.field()))).toList());
        }
    }

    /** Changes the passphrase: every other session ends, and this one goes on under another number. */
    @PutMapping("/passphrase")
    void changePassphrase(@RequestBody NewPassphrase change, HttpServletRequest request) {
        String email = Requests.email(request);
        PeopleService.From from =
                Requests.from(request, browsers.knownAs(request, email).orElse(null));
        people.changePassphrase(email, change.current(), change.next(), from);
        sessions.endOthers(request.getSession(false));
        request.changeSessionId();
    }

    private void enter(Person person, HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(new UsernamePasswordAuthenticationToken(person.name(), person.email(), List.of()));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        PeopleService.From from = Requests.from(request, null);
        sessions.began(request.getSession(), from.sender(), from.browser());
        browsers.mark(request, response, person.email());
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
