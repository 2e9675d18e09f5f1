package quill.standins.countinghouse;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What a business can ask, as OpenAPI describes it: at {@code /counting-house/openapi}. */
@Configuration
class Description {
    private static final String KEY = "key";

    @Bean
    OpenAPI openApi() {
        return new OpenAPI()
                .info(
                        new Info()
                                .title("The counting house")
                                .version("1")
                                .description(
                                        "A simulated card processor. Every call carries the business's key as a bearer token; what"
                                                + " opens something carries an Idempotency-Key, and the same key finds the same thing. Sums"
                                                + " are decimal text in the currency's own decimals. Refusals are problem details (RFC 9457)."
                                                + " Events are signed as Standard Webhooks has it, and are hints: ask for the order."))
                .components(new Components()
                        .addSecuritySchemes(
                                KEY,
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.HTTP)
                                        .scheme("bearer")))
                .addSecurityItem(new SecurityRequirement().addList(KEY));
    }
}
