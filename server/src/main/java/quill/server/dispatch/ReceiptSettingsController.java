package quill.server.dispatch;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What whoever paid is sent, over HTTP. */
@RestController
@RequestMapping("/api/receipt-setting")
class ReceiptSettingsController {
    private final ReceiptSettings settings;

    ReceiptSettingsController(ReceiptSettings settings) {
        this.settings = settings;
    }

    @GetMapping
    ReceiptSettings.ReceiptSetting receipts() {
        return settings.setting();
    }

    @PutMapping
    ReceiptSettings.ReceiptSetting changeReceipts(@RequestBody ReceiptSettings.ReceiptSetting to) {
        return settings.change(to);
    }
}
