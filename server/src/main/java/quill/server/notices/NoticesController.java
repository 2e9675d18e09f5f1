package quill.server.notices;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the business hears of, over HTTP. */
@RestController
@RequestMapping("/api")
class NoticesController {
    private static final int FEW = 5;
    private final Notices notices;

    NoticesController(Notices notices) {
        this.notices = notices;
    }

    /** The newest few after an id, newest first. */
    @GetMapping("/notices")
    List<Notice> after(@RequestParam(defaultValue = "0") long after) {
        return notices.after(after, FEW);
    }

    @GetMapping("/notice-setting")
    NoticeSetting setting() {
        return notices.setting();
    }

    @PutMapping("/notice-setting")
    NoticeSetting change(@RequestBody NoticeSetting setting) {
        return notices.change(setting);
    }
}
