package quill.server.common;

import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The API's description: OpenAPI 3.0, the same on every machine, with every field of a record required. */
@Configuration
class ApiDescription {
    /** Fields that hold another record or nothing: OpenAPI 3.0 cannot say that beside a reference, only around it. */
    private static final Map<String, List<String>> RECORD_OR_NOTHING = Map.ofEntries(
            Map.entry("Reckoning", List.of("sums")),
            Map.entry("ReckonedSums", List.of("prepaid", "rounding", "own")),
            Map.entry("PrintedDocument", List.of("corrects")),
            Map.entry("PrintedSums", List.of("own")),
            Map.entry("PrintedLineSums", List.of("gross", "off")),
            Map.entry("InvoiceView", List.of("draft", "issued")),
            Map.entry("Row", List.of("total", "open")),
            Map.entry("Mark", List.of("amount")),
            Map.entry("ClientChasingView", List.of("lateFee")),
            Map.entry("OwnPolicy", List.of("lateFee")),
            Map.entry("ListedInvoice", List.of("total")),
            Map.entry("Payment", List.of("undone")),
            Map.entry("Means", List.of("payer", "extra")),
            Map.entry("After", List.of("refundCredit", "refundMost", "yours", "dispute", "link")),
            Map.entry("InsideTax", List.of("amount")),
            Map.entry("SavedOfClient", List.of("asked")),
            Map.entry("SavedOnPage", List.of("later")),
            Map.entry("TakeCard", List.of("keep")),
            Map.entry("Ahead", List.of("coming")),
            Map.entry("Pay", List.of("keep", "chosen")),
            Map.entry("PayLink", List.of("chosen")),
            Map.entry("PayFromSaved", List.of("chosen")),
            Map.entry("Collect", List.of("keep")),
            Map.entry("MoneyRecord", List.of("payment")),
            Map.entry("Moving", List.of("said")),
            Map.entry("FeeView", List.of("waived")),
            Map.entry("ToCome", List.of("act")),
            Map.entry("TimelineEntry", List.of("letter", "payment", "fee")),
            Map.entry("Edit", List.of("draft", "of")),
            Map.entry("QuoteView", List.of("draft", "issued")),
            Map.entry("QuoteIssued", List.of("answer")),
            Map.entry("QuotePage", List.of("answer", "ahead")),
            Map.entry("Led", List.of("total")),
            Map.entry("LeadsTo", List.of("missing", "left")),
            Map.entry("PickView", List.of("off", "early", "acceptance")),
            Map.entry("PrintedBody", List.of("job")),
            Map.entry("QuoteRow", List.of("total")),
            Map.entry("TypedDraft", List.of("lateFee", "offer", "job", "plan")));

    /** Fields of the core's records that may be empty: the core says nothing of how it is sent. */
    private static final Map<String, List<String>> OR_NOTHING = Map.of(
            "TypedDraft", List.of("clientId"),
            "TypedLine", List.of("item", "note", "serial", "category", "choice", "of"),
            "Matter", List.of("supplyDate", "supplyEnd"));

    @Bean
    @SuppressWarnings("rawtypes")
    OpenApiCustomizer description() {
        return api -> {
            api.setInfo(new Info().title("Rustic Quill").version("1"));
            api.setServers(List.of(new Server().url("/")));
            Map<String, Schema> schemas = api.getComponents().getSchemas();
            schemas.values().forEach(ApiDescription::requireAll);
            RECORD_OR_NOTHING.forEach(
                    (record, fields) -> fields.forEach(field -> orNothing(schemas.get(record), field)));
            OR_NOTHING.forEach((record, fields) -> fields.forEach(
                    field -> ((Schema<?>) schemas.get(record).getProperties().get(field)).setNullable(true)));
        };
    }

    private static void requireAll(Schema<?> schema) {
        schema.setNullable(null);
        if (schema.getProperties() != null) {
            schema.setRequired(new ArrayList<>(schema.getProperties().keySet()));
        }
    }

    @SuppressWarnings("rawtypes")
    private static void orNothing(Schema<?> record, String field) {
        Map<String, Schema> properties = record.getProperties();
        Schema<Object> around = new Schema<>();
        around.setNullable(true);
        around.addAllOfItem(properties.get(field));
        properties.put(field, around);
    }
}
