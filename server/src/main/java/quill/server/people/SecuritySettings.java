package quill.server.people;

import jakarta.servlet.DispatcherType;
import org.springframework.boot.web.servlet.ServletContextInitializer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import quill.server.QuillSettings;
import quill.server.common.Problems;

/** Who may reach what: the business signs in; a client's page is reached by its unguessable address. */
@Configuration
class SecuritySettings {
    @Bean
    SecurityFilterChain chain(HttpSecurity http, SecurityContextRepository contexts) throws Exception {
        // What ends a stream goes on with a request that was let in; its session may have ended meanwhile.
        return http.authorizeHttpRequests(r -> r.dispatcherTypeMatchers(DispatcherType.ASYNC)
                        .permitAll()
                        .requestMatchers(
                                "/api/session", "/api/first-run", "/api/public/**", "/api/hooks/**", "/api/health")
                        .permitAll()
                        .requestMatchers("/api/**", "/v3/api-docs/**", "/v3/api-docs.yaml")
                        .authenticated()
                        .anyRequest()
                        .permitAll())
                .securityContext(c -> c.securityContextRepository(contexts))
                .csrf(c -> c.spa().ignoringRequestMatchers("/api/public/**", "/api/hooks/**"))
                .requestCache(c -> c.disable())
                .formLogin(f -> f.disable())
                .httpBasic(b -> b.disable())
                .logout(l -> l.disable())
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, why) -> Problems.write(
                                response,
                                401,
                                "signed-out",
                                "You are signed out. Sign in again; what you typed stays."))
                        .accessDeniedHandler((request, response, why) -> Problems.write(
                                response,
                                403,
                                "not-trusted",
                                "This request did not come from a page of ours. Reload.")))
                .headers(h -> h.frameOptions(f -> f.deny())
                        .referrerPolicy(r -> r.policy(ReferrerPolicy.NO_REFERRER))
                        .permissionsPolicyHeader(p -> p.policy("camera=(), microphone=(), geolocation=()")))
                .build();
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    /** Behind TLS the session's cookie travels over nothing else. */
    @Bean
    ServletContextInitializer secureCookie(QuillSettings settings) {
        return context ->
                context.getSessionCookieConfig().setSecure(settings.publicUrl().startsWith("https:"));
    }

    /** Sign-in is our own; this keeps the framework from making up an account. */
    @Bean
    UserDetailsService nobody() {
        return name -> {
            throw new UsernameNotFoundException(name);
        };
    }
}
