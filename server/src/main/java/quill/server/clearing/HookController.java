package quill.server.clearing;

import io.swagger.v3.oas.annotations.Hidden;
import java.net.http.HttpHeaders;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import quill.server.processor.CardProcessor;
import quill.server.processor.ProcessorAdapter;
import quill.server.processor.Processors;

/** Events from processors, each at an address of its own. Forged and old ones are refused. */
@RestController
@Hidden
class HookController {
    private static final Logger LOG = LoggerFactory.getLogger(HookController.class);
    private final AccountReading reading;
    private final Processors processors;

    HookController(AccountReading reading, Processors processors) {
        this.reading = reading;
        this.processors = processors;
    }

    @PostMapping(Processors.EVENTS + "/{hookKey}")
    ResponseEntity<ProblemDetail> event(
            @PathVariable String hookKey,
            @RequestHeader MultiValueMap<String, String> headers,
            @RequestBody String body) {
        Optional<Processors.Heard> heard = processors.heard(
                hookKey, new ProcessorAdapter.Event(HttpHeaders.of(headers, (name, value) -> true), body));
        if (heard.isEmpty()) {
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED)
                    .body(ProblemDetail.forStatusAndDetail(
                            HttpStatus.UNAUTHORIZED, "The signature is not ours, or the event is too old."));
        }
        try {
            reading.heard(heard.get());
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("asked about an event, the processor does not answer", e);
            return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                    .body(ProblemDetail.forStatusAndDetail(
                            HttpStatus.SERVICE_UNAVAILABLE, "Asked about it, you gave no answer. Send it again."));
        }
        return ResponseEntity.noContent().build();
    }
}
