package quill.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** No feature reads another's tables: read from the SQL itself, in the sources. */
public class OwnTablesTest {
    private static final Path SOURCES = Path.of("src/main/java/quill/server");
    private static final Path TABLES = Path.of("src/main/resources/db/books");
    private static final Pattern TEXT =
            Pattern.compile("\"\"\"(.*?)\"\"\"|\"((?:[^\"\\\\\\n]|\\\\.)*)\"", Pattern.DOTALL);
    private static final Pattern MADE = Pattern.compile("(CREATE|DROP) TABLE ([a-z_]+)");
    private static final Pattern SQL = Pattern.compile("\\b(FROM|JOIN|INTO|UPDATE)\\s+([a-z_]+)\\b");

    @Test
    public void eachTableHasOneFeatureThatWritesItAndNoOtherReadsIt() throws IOException {
        Set<String> tables = tables();
        Map<String, Set<String>> writers = new TreeMap<>();
        Map<String, Set<String>> users = new TreeMap<>();
        for (Map.Entry<String, List<String>> feature : texts().entrySet()) {
            for (String text : feature.getValue()) {
                Matcher use = SQL.matcher(text);
                while (use.find()) {
                    if (tables.contains(use.group(2))) {
                        boolean writes = Set.of("INTO", "UPDATE").contains(use.group(1));
                        (writes ? writers : users)
                                .computeIfAbsent(use.group(2), t -> new TreeSet<>())
                                .add(feature.getKey());
                    }
                }
            }
        }
        assertThat(writers.keySet()).as("each table is written somewhere").isEqualTo(tables);
        assertThat(writers.values()).as("and by one feature only: " + writers).allMatch(w -> w.size() == 1);
        Set<String> foreign = new TreeSet<>();
        users.forEach((table, features) -> features.stream()
                .filter(f -> !writers.get(table).contains(f))
                .forEach(f -> foreign.add(f + " reads " + table)));
        assertThat(foreign).isEmpty();
    }

    private static Set<String> tables() throws IOException {
        Set<String> tables = new TreeSet<>();
        try (Stream<Path> files = Files.list(TABLES)) {
            for (Path file : files.sorted(Comparator.comparingInt(OwnTablesTest::version))
                    .toList()) {
                Matcher made = MADE.matcher(Files.readString(file));
                while (made.find()) {
                    if (made.group(1).equals("CREATE")) {
                        tables.add(made.group(2));
                    } else {
                        tables.remove(made.group(2));
                    }
                }
            }
        }
        return tables;
    }

    /** The order in which they are run: what a later one drops is not there. */
    private static int version(Path file) {
        return Integer.parseInt(file.getFileName().toString().replaceFirst("V(\\d+)__.*", "$1"));
    }

    /** Every text in the sources, by feature. */
    private static Map<String, List<String>> texts() throws IOException {
        Map<String, List<String>> texts = new HashMap<>();
        try (Stream<Path> files = Files.walk(SOURCES)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
                Path in = SOURCES.relativize(file);
                Matcher text = TEXT.matcher(Files.readString(file));
                while (text.find()) {
                    texts.computeIfAbsent(in.getName(0).toString(), f -> new ArrayList<>())
                            .add(text.group(1) != null ? text.group(1) : text.group(2));
                }
            }
        }
        return texts;
    }
}
