package quill.server.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.catalogue.TypedItem;
import quill.server.Server;
import quill.server.common.NotFoundException;

public class ItemPicturesTest {
    private Server server;
    private CatalogueService catalogue;
    private ItemPictures pictures;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(LocalDate.of(2027, 3, 15));
        catalogue = server.bean(CatalogueService.class);
        pictures = server.bean(ItemPictures.class);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private long item(String description) {
        return catalogue.make(new TypedItem("", description, "", Map.of("EUR", "5"), List.of(), "", false, "", ""));
    }

    private static byte[] png(int width, int height, int colour) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, colour);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    @Test
    public void aPictureIsDrawnAnewShownWhereOneChoosesAndKeptWhileAnItemHasIt() throws IOException {
        long one = item("Tuning lever");
        long other = item("Tuning lever, long");
        pictures.take(one, png(960, 480, 1));
        pictures.take(other, png(960, 480, 1));
        String hash = catalogue.item(one).picture();
        assertThat(catalogue.item(other).picture()).isEqualTo(hash);
        BufferedImage kept =
                ImageIO.read(new ByteArrayInputStream(pictures.png(hash).orElseThrow()));
        assertThat(List.of(kept.getWidth(), kept.getHeight())).containsExactly(480, 240);
        assertThat(catalogue.choices("tuning lever", CurrencyUnit.EUR))
                .extracting(CatalogueService.LineChoice::picture)
                .containsOnly(hash);
        pictures.takeOff(one);
        assertThat(catalogue.item(one).picture()).isEmpty();
        assertThat(pictures.png(hash)).isPresent();
        pictures.take(other, png(10, 10, 2));
        assertThat(pictures.png(hash)).isEmpty();
        assertThat(pictures.png(catalogue.item(other).picture())).isPresent();
    }

    @Test
    public void whatIsNoPictureAndAnItemThatThereIsNotAreRefused() throws IOException {
        long item = item("Key dip block");
        assertThatThrownBy(() -> pictures.take(item, "GIF89a".getBytes(StandardCharsets.US_ASCII)))
                .isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> pictures.take(4711, png(5, 5, 3))).isInstanceOf(NotFoundException.class);
        assertThatThrownBy(() -> pictures.takeOff(4711)).isInstanceOf(NotFoundException.class);
        assertThat(server.jdbc()
                        .sql(
                                "SELECT COUNT(*) FROM item_picture p WHERE NOT EXISTS (SELECT 1 FROM item WHERE picture = p.hash)")
                        .query(Integer.class)
                        .single())
                .isZero();
    }
}
