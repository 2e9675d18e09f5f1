package quill.server.business;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import javax.imageio.ImageIO;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;

public class LogoTest {
    private static byte[] picture(int width, int height, int type, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, type), format, out);
        return out.toByteArray();
    }

    private static byte[] svg(String inside) {
        return ("<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink'"
                        + " width='200' height='50' viewBox='0 0 200 50'>" + inside + "</svg>")
                .getBytes(StandardCharsets.UTF_8);
    }

    @DataProvider
    public Object[][] sizes() {
        return new Object[][] {
            {300, 100, "png", 300, 100},
            {300, 100, "jpg", 300, 100},
            {2400, 300, "png", 1200, 150},
            {200, 3000, "png", 40, 600},
            {3000, 1, "png", 1200, 1},
        };
    }

    @Test(dataProvider = "sizes")
    public void isFittedToWhatPaperCanShowWhateverItsAspect(int width, int height, String format, int w, int h)
            throws IOException {
        SafePicture logo = SafePicture.read(picture(width, height, BufferedImage.TYPE_INT_RGB, format), 1200, 600);
        assertThat(logo.width()).isEqualTo(w);
        assertThat(logo.height()).isEqualTo(h);
        assertThat(ImageIO.read(new ByteArrayInputStream(logo.png())).getWidth())
                .isEqualTo(w);
    }

    @Test
    public void aPhotographOfThirtyMegapixelsIsRefusedBeforeItIsRead() throws IOException {
        byte[] large = picture(6000, 5000, BufferedImage.TYPE_BYTE_BINARY, "png");
        assertThat(large.length).isLessThan(SafePicture.MOST_BYTES);
        assertThatThrownBy(() -> SafePicture.read(large, 1200, 600))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("30 million pixels");
    }

    @Test
    public void ofAnSvgOnlyTheDrawingIsLeft() throws IOException {
        AtomicInteger asked = new AtomicInteger();
        try (java.net.ServerSocket trap = new java.net.ServerSocket(0)) {
            Thread listening = new Thread(() -> {
                try {
                    trap.accept().close();
                    asked.incrementAndGet();
                } catch (IOException e) {
                    asked.get(); // Nobody came.
                }
            });
            listening.start();
            SafePicture logo = SafePicture.read(
                    svg("<script>document.documentElement.setAttribute('width','1')</script>"
                            + "<rect width='200' height='50' fill='#1b5e54' onload='throw 1'/>"),
                    1200,
                    600);
            BufferedImage drawn = ImageIO.read(new ByteArrayInputStream(logo.png()));
            assertThat(drawn.getWidth()).isEqualTo(1200);
            assertThat(drawn.getRGB(600, 150) & 0xFFFFFF).isEqualTo(0x1b5e54);
            assertThat(new String(logo.png(), StandardCharsets.ISO_8859_1)).doesNotContain("script");
            String outside = "http://localhost:" + trap.getLocalPort() + "/x.png";
            assertThatThrownBy(() -> SafePicture.read(
                            svg("<image xlink:href='" + outside + "' width='200' height='50'/>"), 1200, 600))
                    .isInstanceOf(RefusedException.class);
            assertThat(asked).hasValue(0);
        }
    }

    @DataProvider
    public Object[][] noLogos() {
        return new Object[][] {
            {new byte[0]},
            {"%PDF-1.7".getBytes(StandardCharsets.US_ASCII)},
            {"<svg><rect".getBytes(StandardCharsets.US_ASCII)},
            {
                "<?xml version='1.0'?><!DOCTYPE svg [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><svg>&x;</svg>"
                        .getBytes(StandardCharsets.US_ASCII)
            },
            {new byte[SafePicture.MOST_BYTES + 1]},
        };
    }

    @Test(dataProvider = "noLogos")
    public void whatIsNoLogoIsRefusedWithAReason(byte[] file) {
        assertThatThrownBy(() -> SafePicture.read(file, 1200, 600))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(quill.core.Problem::field)
                                .containsExactly("file"));
    }
}
