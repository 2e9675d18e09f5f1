package quill.standins;

import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The outside world, simulated: the counting house (card processor), the post room (mailboxes) and the telegraph office (telephones). */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class StandinsApplication {
    /** Starts both on the ports of their settings. */
    public static void main(String[] args) {
        start(args);
    }

    /** Starts with settings of its own file, whatever else runs in the same process. */
    public static ConfigurableApplicationContext start(String... args) {
        return new SpringApplicationBuilder(StandinsApplication.class)
                .properties("spring.config.name=standins")
                .run(args);
    }
}
