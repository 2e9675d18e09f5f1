package quill.server.common;

import com.fasterxml.jackson.annotation.JsonAutoDetect;
import java.lang.reflect.Method;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.document.Extent;
import quill.core.latefee.LateFeePolicy;
import quill.core.money.Percent;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.node.ObjectNode;

/**
 * Values of the core as JSON, where they are kept whole: money as {@code EUR 12.50}, a percentage as {@code 21}, numbers
 * as text with the decimals that they have, and one of several choices under its word. What cannot be read whole is
 * refused.
 */
@Component
public class ValueJson {
    private final JsonMapper mapper = JsonMapper.builder()
            .addModule(values())
            // A record is its components, not what it can tell of them.
            .changeDefaultVisibility(seen -> seen.withIsGetterVisibility(JsonAutoDetect.Visibility.NONE))
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .enable(DeserializationFeature.FAIL_ON_MISSING_CREATOR_PROPERTIES)
            .build();

    /** As it is kept. */
    public String write(Object value) {
        return mapper.writeValueAsString(value);
    }

    /** From what {@link #write} made. @throws RuntimeException where it is not whole */
    public <T> T read(String json, Class<T> type) {
        return mapper.readValue(json, type);
    }

    /** The same of a text that an earlier build wrote, which did not know of one of the components: it is null. */
    public <T> T read(String json, Class<T> type, String unknown) {
        ObjectNode tree = (ObjectNode) mapper.readTree(json);
        tree.putNull(unknown);
        return mapper.treeToValue(tree, type);
    }

    private static JacksonModule values() {
        SimpleModule values = new SimpleModule("values of the core");
        text(values, Money.class, Money::toString, Money::parse);
        text(values, Percent.class, p -> p.rate().toPlainString(), Percent::of);
        text(values, CurrencyUnit.class, CurrencyUnit::getCode, CurrencyUnit::of);
        text(values, BigDecimal.class, BigDecimal::toPlainString, BigDecimal::new);
        choice(
                values,
                Extent.class,
                Map.of(
                        "none", Extent.None.class,
                        "percent", Extent.OfPercent.class,
                        "amount", Extent.OfAmount.class));
        choice(
                values,
                LateFeePolicy.Charge.class,
                Map.of(
                        "none", LateFeePolicy.Charge.None.class,
                        "flat", LateFeePolicy.Charge.Flat.class,
                        "percent", LateFeePolicy.Charge.OfOverdue.class));
        choice(
                values,
                LateFeePolicy.Repeat.class,
                Map.of(
                        "once", LateFeePolicy.Repeat.Once.class,
                        "days", LateFeePolicy.Repeat.EveryDays.class,
                        "monthly", LateFeePolicy.Repeat.Monthly.class));
        choice(
                values,
                LateFeePolicy.Cap.class,
                Map.of(
                        "none", LateFeePolicy.Cap.None.class,
                        "amount", LateFeePolicy.Cap.OfAmount.class,
                        "percent", LateFeePolicy.Cap.OfFirstAmount.class));
        return values;
    }

    private static <T> void text(
            SimpleModule module, Class<T> type, Function<T, String> write, Function<String, T> read) {
        module.addSerializer(type, new ValueSerializer<T>() {
            @Override
            public void serialize(T value, JsonGenerator out, SerializationContext context) {
                out.writeString(write.apply(value));
            }
        });
        module.addDeserializer(type, new ValueDeserializer<T>() {
            @Override
            public T deserialize(JsonParser in, DeserializationContext context) {
                return read.apply(in.getString());
            }
        });
    }

    /** One of several: an object with its word, and what belongs to it. */
    private static <T> void choice(SimpleModule module, Class<T> type, Map<String, Class<? extends T>> words) {
        Map<Class<? extends T>, String> wordOf =
                words.entrySet().stream().collect(Collectors.toMap(Map.Entry::getValue, Map.Entry::getKey));
        module.addSerializer(type, new ValueSerializer<T>() {
            @Override
            public void serialize(T value, JsonGenerator out, SerializationContext context) {
                out.writeStartObject();
                out.writeName(wordOf.get(value.getClass()));
                components(value, out, context);
                out.writeEndObject();
            }
        });
        module.addDeserializer(type, new ValueDeserializer<T>() {
            @Override
            public T deserialize(JsonParser in, DeserializationContext context) {
                String word = in.nextName();
                if (word == null || !words.containsKey(word)) {
                    throw new IllegalStateException("must be one of " + words.keySet() + ", not " + word);
                }
                in.nextToken();
                T value = context.readValue(in, words.get(word));
                if (in.nextToken() != JsonToken.END_OBJECT) {
                    throw new IllegalStateException("a choice has one word");
                }
                return value;
            }
        });
    }

    /** Of a record that is one of several choices: its own way to be written would be that of the choice again. */
    private static void components(Object choice, JsonGenerator out, SerializationContext context) {
        out.writeStartObject();
        for (RecordComponent component : choice.getClass().getRecordComponents()) {
            try {
                Method accessor = component.getAccessor();
                accessor.setAccessible(true);
                out.writeName(component.getName());
                context.writeValue(out, accessor.invoke(choice));
            } catch (ReflectiveOperationException e) {
                throw new IllegalStateException(e);
            }
        }
        out.writeEndObject();
    }
}
