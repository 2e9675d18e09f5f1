package quill.server.dailyrun;

import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import quill.server.clearing.AccountReading;
import quill.server.clearing.AskingAround;
import quill.server.dispatch.Outbox;
import quill.server.dispatch.ReturnedMail;
import quill.server.notices.Notices;
import quill.server.running.Round;

/** What is done by itself, and how often: milliseconds from the settings. */
@Configuration
class Timers {
    @Bean
    Round outboxRound(Outbox outbox, @Value("${quill.outbox-every}") long every) {
        return new Round("outbox", Duration.ofMillis(every), true, outbox::sendDue);
    }

    @Bean
    Round mailboxRound(ReturnedMail returned, @Value("${quill.mailbox-every}") long every) {
        return new Round("mailbox", Duration.ofMillis(every), true, returned::read);
    }

    @Bean
    Round noticesRound(Notices notices, @Value("${quill.run-every}") long every) {
        return new Round("notices", Duration.ofMillis(every), true, over -> notices.evening());
    }

    @Bean
    Round processorRound(AskingAround rounds, @Value("${quill.processor.ask-every}") long every) {
        return new Round("processor", Duration.ofMillis(every), true, rounds::all);
    }

    /** Reads what proves the payments of the last moments. */
    @Bean
    Round accountRound(AccountReading reading, @Value("${quill.processor.read-every}") long every) {
        return new Round("accounts", Duration.ofMillis(every), true, reading::readSoon);
    }

    /** Looks a few times a minute whether the business's hour has come. */
    @Bean
    Round dailyRound(DailyRun run, @Value("${quill.run-every}") long every) {
        return new Round("daily run", Duration.ofMillis(every), true, run::tick);
    }
}
