package quill.server.demo;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClientException;
import quill.server.QuillSettings;
import quill.server.common.BusinessClock;
import quill.server.processor.ProcessorClient;

/** Keeps the day of the simulated card processor where the demo's clock is. */
@Component
class DemoCounting {
    private static final Logger LOG = LoggerFactory.getLogger(DemoCounting.class);

    private final ProcessorClient processor;
    private final QuillSettings settings;
    private final BusinessClock clock;

    DemoCounting(ProcessorClient processor, QuillSettings settings, BusinessClock clock) {
        this.processor = processor;
        this.settings = settings;
        this.clock = clock;
    }

    void tellDate() {
        try {
            if (settings.processor().isSet()) {
                processor.tellDate(clock.today());
            }
        } catch (RestClientException e) {
            LOG.warn("The counting house does not answer: {}", e.getMessage());
        }
    }
}
