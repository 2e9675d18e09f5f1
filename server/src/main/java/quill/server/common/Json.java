package quill.server.common;

import com.fasterxml.jackson.annotation.JsonSetter;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** JSON for what is stored whole: a draft as typed, a document as issued. */
@Component
public class Json {
    private final JsonMapper mapper;

    Json(JsonMapper mapper) {
        // What was stored is read as it is: a stricter reading of requests is no reason to lose an older draft.
        this.mapper = mapper.rebuild()
                .changeDefaultNullHandling(nulls -> JsonSetter.Value.empty())
                .build();
    }

    /** As text. */
    public String write(Object value) {
        return mapper.writeValueAsString(value);
    }

    /** From text that {@link #write} made. */
    public <T> T read(String json, Class<T> type) {
        return mapper.readValue(json, type);
    }
}
