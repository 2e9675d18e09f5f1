package quill.server.people;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Who may reach what: the business signs in; a client's page is reached by its unguessable address. */
@Configuration
class SecuritySettings {
    @Bean
    SecurityFilterChain chain(HttpSecurity http, SecurityContextRepository contexts) throws Exception {
        return http.authorizeHttpRequests(r -> r.requestMatchers(
                                "/api/session", "/api/first-run", "/api/public/**", "/api/hooks/**", "/api/health")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/v3/api-docs")
                        .permitAll()
                        .requestMatchers("/api/**")
                        .authenticated()
                        .anyRequest()
                        .permitAll())
                .securityContext(c -> c.securityContextRepository(contexts))
                .csrf(c -> c.spa().ignoringRequestMatchers("/api/public/**", "/api/hooks/**"))
                .requestCache(c -> c.disable())
                .formLogin(f -> f.disable())
                .httpBasic(b -> b.disable())
                .logout(l -> l.disable())
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, why) -> problem(
                                response,
                                401,
                                "signed-out",
                                "You are signed out. Sign in again; what you typed stays."))
                        .accessDeniedHandler((request, response, why) -> problem(
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

    /** Sign-in is our own; this keeps the framework from making up an account. */
    @Bean
    UserDetailsService nobody() {
        return name -> {
            throw new UsernameNotFoundException(name);
        };
    }

    private static void problem(
            jakarta.servlet.http.HttpServletResponse response, int status, String code, String message)
            throws java.io.IOException {
        response.setStatus(status);
        response.setContentType("application/problem+json");
        response.setCharacterEncoding("UTF-8");
        response.getWriter()
                .write("{\"type\":\"urn:rustic-quill:" + code + "\",\"status\":" + status + ",\"detail\":\"" + message
                        + "\"}");
    }
}
