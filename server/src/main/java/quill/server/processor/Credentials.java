package quill.server.processor;

import java.util.Map;

/** What a processor wants to know before it answers, by the names that its adapter gave. */
public record Credentials(Map<String, String> values) {
    /** None are null. */
    public Credentials {
        values = Map.copyOf(values);
    }

    /** One of them; empty where it is not given. */
    public String get(String name) {
        return values.getOrDefault(name, "");
    }

    /** Never the values: this may come into a log. */
    @Override
    public String toString() {
        return "Credentials" + values.keySet();
    }
}
