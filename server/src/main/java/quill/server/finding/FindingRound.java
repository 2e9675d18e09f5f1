package quill.server.finding;

import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import quill.server.running.Round;

/** Reads again by and by what changed, so that whoever looks for something waits for little. */
@Configuration
class FindingRound {
    @Bean
    Round finding(FindingService service, @Value("${quill.find-every}") long every) {
        return new Round("finding", Duration.ofMillis(every), true, over -> {
            while (!over.getAsBoolean() && service.readAgain()) {
                // The next batch.
            }
        });
    }
}
