package quill.bench;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import quill.core.letter.LetterKind;
import quill.server.QuillApplication;
import quill.server.business.Business;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Phrases;
import quill.server.letters.SampleFacts;
import quill.server.letters.Wordings;

/** Letters rendered a second by one thread: filled in, drawn as HTML and as text, with the phrases of one reminder. */
public final class LettersBench {
    private static final int WARM = 3_000;
    private static final int TIMES = 5_000;
    private static final int PHRASES = 10;

    private LettersBench() {}

    /** Runs in a process of its own, with as little memory as the aim allows. */
    static String run(Path root) throws Exception {
        Process child = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx256m",
                        "-cp",
                        String.join(
                                File.pathSeparator,
                                root.resolve("bench/target/classes").toString(),
                                root.resolve("server/target/app") + "/*",
                                root.resolve("server/target/app/lib") + "/*"),
                        LettersBench.class.getName())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        String said = new String(child.getInputStream().readAllBytes());
        child.waitFor();
        return said.lines().filter(l -> l.startsWith("letters")).findFirst().orElse("letters: failed") + "\n";
    }

    public static void main(String[] args) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        SpringApplication application = new SpringApplication(QuillApplication.class);
        try (ConfigurableApplicationContext context = application.run(
                "--spring.config.name=quill",
                "--server.port=0",
                "--quill.data=" + data,
                "--quill.public-url=http://localhost",
                "--spring.mail.port=1")) {
            LetterWriting writing = context.getBean(LetterWriting.class);
            Wordings wordings = context.getBean(Wordings.class);
            Phrases phrases = context.getBean(Phrases.class);
            LetterFacts facts = SampleFacts.of(
                    LetterKind.FIRM,
                    new Business("Bench", "", "Here 1", "BE", "a@b.example", "", false, "EUR", "UTC", null, null, 1));
            var wording = wordings.now(LetterKind.FIRM, false);
            var fields = wordings.fields(LetterKind.FIRM);
            Runnable one = () -> {
                for (int i = 0; i < PHRASES; i++) {
                    phrases.say("how-many", Map.of("numbers", List.of("2027-0001", "2027-0002")));
                }
                writing.draw(LetterKind.FIRM, wording.fill(facts.values(), facts.drawn(), fields, "-"), facts);
            };
            for (int i = 0; i < WARM; i++) {
                one.run();
            }
            long began = System.nanoTime();
            for (int i = 0; i < TIMES; i++) {
                one.run();
            }
            double seconds = (System.nanoTime() - began) / 1e9;
            System.out.printf("letters: %.0f a second and thread at -Xmx256m (aim: at least 1,000)%n", TIMES / seconds);
        }
    }
}
