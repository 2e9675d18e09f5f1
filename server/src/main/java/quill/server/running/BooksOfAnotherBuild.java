package quill.server.running;

import java.nio.file.Path;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Books whose tables are not those of this build: they are left as they are. */
class BooksOfAnotherBuild extends RuntimeException {
    private static final long serialVersionUID = 1L;

    BooksOfAnotherBuild(Path file) {
        super("The books in " + file
                + " were kept by another build, and this one cannot read them. Nothing in them was changed.");
    }

    /** Says what to do, instead of a trace. */
    static class Analyzer extends AbstractFailureAnalyzer<BooksOfAnotherBuild> {
        @Override
        protected FailureAnalysis analyze(Throwable root, BooksOfAnotherBuild cause) {
            return new FailureAnalysis(
                    cause.getMessage(),
                    "Open them with the build that kept them; or begin with an empty folder: move this one away, or name"
                            + " another with QUILL_DATA. The demo begins anew with: ./quill demo --fresh",
                    cause);
        }
    }
}
