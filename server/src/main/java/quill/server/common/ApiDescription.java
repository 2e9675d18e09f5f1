package quill.server.common;

import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.List;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The API's description: OpenAPI 3.0, the same on every machine, with every field of a record required. */
@Configuration
class ApiDescription {
    @Bean
    OpenApiCustomizer description() {
        return api -> {
            api.setInfo(new Info().title("Rustic Quill").version("1"));
            api.setServers(List.of(new io.swagger.v3.oas.models.servers.Server().url("/")));
            api.getComponents().getSchemas().values().forEach(ApiDescription::requireAll);
        };
    }

    private static void requireAll(Schema<?> schema) {
        if (schema.getProperties() != null) {
            schema.setRequired(new ArrayList<>(schema.getProperties().keySet()));
        }
    }
}
