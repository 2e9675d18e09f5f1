package quill.server.common;

import java.net.http.HttpClient;
import java.time.Duration;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.web.client.RestClient;

/** A service outside that is asked over HTTP/1.1 with a key of ours. */
public final class OutsideService {
    private static final Duration TO_CONNECT = Duration.ofSeconds(3);
    private static final String NOWHERE = "http://localhost:9";

    private OutsideService() {}

    /** @param url null or empty where none is set up, so that nothing is asked @param toAnswer how long it may take */
    public static RestClient at(String url, String apiKey, Duration toAnswer) {
        JdkClientHttpRequestFactory requests = new JdkClientHttpRequestFactory(HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(TO_CONNECT)
                .build());
        requests.setReadTimeout(toAnswer);
        return RestClient.builder()
                .baseUrl(url == null || url.isBlank() ? NOWHERE : url)
                .defaultHeader("Authorization", "Bearer " + apiKey)
                .requestFactory(requests)
                .build();
    }
}
