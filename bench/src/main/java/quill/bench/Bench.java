package quill.bench;

import java.nio.file.Path;
import java.util.Collection;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/** Runs all benchmarks and prints one line each, with its aim. Machines are noisy: what counts are the ratios. */
public final class Bench {
    private Bench() {}

    public static void main(String[] args) throws Exception {
        Collection<RunResult> sheets = new Runner(new OptionsBuilder()
                        .include(SheetBench.class.getSimpleName())
                        .build())
                .run();
        double ours = score(sheets, "ours");
        double bare = score(sheets, "bare");
        SystemBench system = new SystemBench(Path.of("").toAbsolutePath());
        String results = String.format("""
                50-line sheet: %.1f us, bare loop %.1f us, ratio %.1f (aim: at most 5)
                %s""", ours, bare, ours / bare, system.run());
        System.out.println();
        System.out.println(results);
    }

    private static double score(Collection<RunResult> results, String name) {
        return results.stream()
                .filter(r -> r.getParams().getBenchmark().endsWith("." + name))
                .mapToDouble(r -> r.getPrimaryResult().getScore())
                .findFirst()
                .orElseThrow();
    }
}
