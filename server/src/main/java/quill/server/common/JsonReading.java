package quill.server.common;

import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** How requests are read: a {@code null} within a list is refused where it stands, not met by the rules later. */
@Configuration
class JsonReading {
    @Bean
    JsonMapperBuilderCustomizer refuseNullsInLists() {
        return mapper -> mapper.changeDefaultNullHandling(nulls -> nulls.withContentNulls(Nulls.FAIL));
    }
}
