package quill.server.letters;

import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.thymeleaf.templatemode.TemplateMode;
import org.thymeleaf.templateresolver.ClassLoaderTemplateResolver;
import org.thymeleaf.templateresolver.ITemplateResolver;

/** Where letters as plain text, and the phrases in them, are drawn from: templates of text, in which nothing is escaped. */
@Configuration
class LetterTemplates {
    /** How their names begin. */
    static final String FOLDER = "letters/";

    @Bean
    ITemplateResolver textOfLetters() {
        ClassLoaderTemplateResolver resolver = new ClassLoaderTemplateResolver();
        resolver.setTemplateMode(TemplateMode.TEXT);
        resolver.setSuffix(".txt");
        resolver.setCharacterEncoding(StandardCharsets.UTF_8.name());
        resolver.setResolvablePatterns(Set.of(FOLDER + "*"));
        resolver.setOrder(1); // Before the one of pages, which takes every name.
        return resolver;
    }
}
