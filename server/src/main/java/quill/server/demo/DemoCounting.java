package quill.server.demo;

import java.time.Duration;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;
import quill.server.QuillSettings;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.OutsideService;
import quill.server.processor.ProcessorSettings;
import quill.server.processor.Processors;

/** Keeps the day of the simulated card processor where the demo's clock is, and says where it pays out to. */
@Component
class DemoCounting {
    private static final Logger LOG = LoggerFactory.getLogger(DemoCounting.class);
    private static final Duration TO_ANSWER = Duration.ofSeconds(8);

    private final RestClient counting;
    private final boolean isSet;
    private final BusinessClock clock;
    private final BusinessService business;
    private final Processors processors;
    private final ProcessorSettings processorSettings;

    DemoCounting(
            QuillSettings settings,
            BusinessClock clock,
            BusinessService business,
            Processors processors,
            ProcessorSettings processorSettings) {
        QuillSettings.Processor processor = settings.processor();
        this.counting = OutsideService.at(processor.url(), processor.apiKey(), TO_ANSWER);
        this.isSet = processor.isSet();
        this.clock = clock;
        this.business = business;
        this.processors = processors;
        this.processorSettings = processorSettings;
    }

    void choosePayout() {
        String iban = business.business().account().iban();
        processors.ids().forEach(id -> processorSettings.payInto(id, iban));
    }

    void tellDate() {
        if (!isSet) {
            return;
        }
        try {
            counting.put()
                    .uri("/api/business-date")
                    .body(Map.of("today", clock.today().toString()))
                    .retrieve()
                    .toBodilessEntity();
        } catch (RestClientException e) {
            LOG.warn("The counting house does not answer: {}", e.getMessage());
        }
    }
}
