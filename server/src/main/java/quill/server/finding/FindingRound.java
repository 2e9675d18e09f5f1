package quill.server.finding;

import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import quill.server.running.Round;

/**
 * Reads again by and by what changed, so that whoever looks for something waits for little: once nothing changes any
 * more, so that it takes no time from a run or an import, and what they change twice is read once.
 */
@Configuration
class FindingRound {
    /** After so many rounds it is read although more comes. */
    private static final int MOST_PUT_OFF = 15;

    @Bean
    Round finding(FindingService service, @Value("${quill.find-every}") long every) {
        Growth growth = new Growth();
        return new Round("finding", Duration.ofMillis(every), true, over -> {
            if (growth.goesOn(service.lastChange())) {
                return;
            }
            while (!over.getAsBoolean() && service.readAgain()) {
                // The next batch.
            }
        });
    }

    /** Whether more comes with each round. */
    private static final class Growth {
        private long last;
        private int putOff;

        private boolean goesOn(long now) {
            boolean more = now > last && putOff < MOST_PUT_OFF;
            putOff = more ? putOff + 1 : 0;
            last = now;
            return more;
        }
    }
}
