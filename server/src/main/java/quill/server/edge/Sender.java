package quill.server.edge;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.HexFormat;

/** Where a request comes from, as limits count it: one form of an address, and an IPv6 one by its /64. */
public final class Sender {
    private static final int HALF_OF_IPV6 = 8;

    private Sender() {}

    /** The key of an address as the connector or a trusted proxy says it; always short. */
    public static String keyOf(String address) {
        String plain = address == null ? "" : address.strip();
        // Only digits are parsed: a name would be looked up.
        if (plain.length() > 45 || !plain.matches("[0-9A-Fa-f:.]+(%[0-9A-Za-z]{1,15})?")) {
            return "unknown";
        }
        try {
            byte[] bytes = InetAddress.getByName(plain.replaceAll("%.*", "")).getAddress();
            if (bytes.length == 4) {
                return InetAddress.getByAddress(bytes).getHostAddress();
            }
            byte[] network = java.util.Arrays.copyOf(bytes, HALF_OF_IPV6);
            return HexFormat.ofDelimiter(":").formatHex(network) + "/64";
        } catch (UnknownHostException e) {
            return "unknown";
        }
    }
}
