package quill.core.pay;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.List;
import quill.core.Problem;

/**
 * An address on the web to which a payer is sent on. Only https is taken: what is sent there must not be read or changed on its
 * way (RFC 9110, 4.2.2). An address that carries a user's name could look like another place than it is (RFC 3986, 7.6).
 */
public final class SecureAddress {
    private static final int LONGEST = 500;

    private SecureAddress() {}

    /** The address as typed; empty for none. @param problems gets the one of this field */
    public static String read(String field, String typed, List<Problem> problems) {
        String plain = typed == null ? "" : typed.strip();
        if (plain.isEmpty()) {
            return "";
        }
        String wrong = wrong(plain);
        if (wrong != null) {
            problems.add(new Problem(field, plain.length() > 60 ? plain.substring(0, 60) + "…" : plain, wrong));
        }
        return plain;
    }

    private static String wrong(String plain) {
        if (plain.length() > LONGEST) {
            return "at most " + LONGEST + " characters";
        }
        try {
            URI uri = new URI(plain);
            if (!"https".equalsIgnoreCase(uri.getScheme()) || uri.getHost() == null) {
                return "must be an https address such as https://club.example/thanks";
            }
            return uri.getUserInfo() == null ? null : "must not carry a user's name before the @";
        } catch (URISyntaxException e) {
            return "must be an https address such as https://club.example/thanks";
        }
    }

    /** The place that an address leads to, as people say it. @param address as read */
    public static String place(String address) {
        return URI.create(address).getHost();
    }
}
