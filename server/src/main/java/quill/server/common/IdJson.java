package quill.server.common;

import io.swagger.v3.oas.annotations.media.Schema;
import java.lang.annotation.Annotation;
import java.util.Arrays;
import java.util.function.LongFunction;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.id.Id;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.module.SimpleModule;

/** Ids travel as plain numbers, and the API's description says so. */
@Configuration(proxyBeanMethods = false)
class IdJson {
    @Bean
    JacksonModule ids() {
        SimpleModule module = new SimpleModule("ids");
        id(module, ClientId.class, ClientId::new);
        id(module, DocumentId.class, DocumentId::new);
        return module;
    }

    /** A field that may be empty is said to be, though what stands for an id there is a plain number. */
    @Bean
    PropertyCustomizer emptyIds() {
        return (property, type) -> {
            Annotation[] said = type.getCtxAnnotations() == null ? new Annotation[0] : type.getCtxAnnotations();
            if (Arrays.stream(said).anyMatch(a -> a instanceof Schema s && s.nullable())) {
                property.setNullable(true);
            }
            return property;
        };
    }

    private static <T extends Id<T>> void id(SimpleModule module, Class<T> type, LongFunction<T> of) {
        SpringDocUtils.getConfig().replaceWithClass(type, Long.class);
        module.addSerializer(type, new ValueSerializer<T>() {
            @Override
            public void serialize(T id, JsonGenerator out, SerializationContext context) {
                out.writeNumber(id.value());
            }
        });
        module.addDeserializer(type, new ValueDeserializer<T>() {
            @Override
            public T deserialize(JsonParser in, DeserializationContext context) {
                Long value = context.readValue(in, Long.class);
                return value == null ? null : of.apply(value);
            }
        });
    }
}
