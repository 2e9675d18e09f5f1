package quill.bench;

import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** Runs all benchmarks and prints one line each, with its aim. Machines are noisy: what counts are the ratios. */
public final class Bench {
    private Bench() {}

    public static void main(String[] args) throws Exception {
        List<String> wanted = args.length == 0
                ? List.of(
                        "sheet",
                        "document",
                        "system",
                        "run",
                        "today",
                        "lists",
                        "pages",
                        "find",
                        "letters",
                        "slip",
                        "money")
                : List.of(args);
        Path root = Path.of("").toAbsolutePath();
        StringBuilder results = new StringBuilder("\n");
        if (wanted.contains("sheet")) {
            results.append(sheet());
        }
        if (wanted.contains("document")) {
            results.append(new DocumentBench(root).run());
        }
        if (wanted.contains("system")) {
            results.append(new SystemBench(root).run());
        }
        if (wanted.contains("run")) {
            results.append(new RunBench(root).run());
        }
        if (wanted.contains("today")) {
            results.append(new RunBench(root).today());
        }
        if (wanted.contains("lists")) {
            results.append(new ListsBench(root).run());
        }
        if (wanted.contains("pages")) {
            results.append(new PagesBench(root).run());
        }
        if (wanted.contains("find")) {
            results.append(new FindBench(root).run());
        }
        if (wanted.contains("letters")) {
            results.append(LettersBench.run(root));
        }
        if (wanted.contains("slip")) {
            results.append(new SlipBench(root).run());
        }
        if (wanted.contains("money")) {
            results.append(new MoneyBench(root).run());
        }
        System.out.println(results);
    }

    private static String sheet() throws RunnerException {
        Collection<RunResult> sheets = new Runner(new OptionsBuilder()
                        .include(SheetBench.class.getSimpleName())
                        .build())
                .run();
        double ours = score(sheets, "ours");
        double bare = score(sheets, "bare");
        double each = ours / 50;
        double eachOfMany = score(sheets, "thousandLines") / 1_000;
        return String.format(
                "50-line sheet: %.1f us, bare loop %.1f us, ratio %.1f (aim: at most 4)%n"
                        + "a line of 1,000: %.3f us, a line of 50: %.3f us, ratio %.2f (aim: at most 1.3)%n",
                ours, bare, ours / bare, eachOfMany, each, eachOfMany / each);
    }

    private static double score(Collection<RunResult> results, String name) {
        return results.stream()
                .filter(r -> r.getParams().getBenchmark().endsWith("." + name))
                .mapToDouble(r -> r.getPrimaryResult().getScore())
                .findFirst()
                .orElseThrow();
    }
}
