package quill.server.common;

import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** JSON for what is stored whole: a draft as typed, a document as issued. */
@Component
public class Json {
    private final JsonMapper mapper;

    Json(JsonMapper mapper) {
        this.mapper = mapper;
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
