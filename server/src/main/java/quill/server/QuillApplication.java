package quill.server;

import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.context.ConfigurableApplicationContext;

/** The application. Settings come from quill.properties beside the classes and, over it, one in the data folder. */
@SpringBootApplication
@ConfigurationPropertiesScan
public class QuillApplication {
    /** Starts with the settings of the files and of the command line. */
    public static void main(String[] args) {
        start(args);
    }

    /** Starts; what else runs in this process is not touched. */
    public static ConfigurableApplicationContext start(String... args) {
        return new SpringApplicationBuilder(QuillApplication.class)
                .properties("spring.config.name=quill")
                .run(args);
    }
}
