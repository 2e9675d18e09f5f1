package quill.server.ways;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.TypedMark;

/** What payers give on top, as the business sets it. */
@RestController
@RequestMapping("/api/on-top")
class OnTopController {
    private final OnTopService service;

    OnTopController(OnTopService service) {
        this.service = service;
    }

    @GetMapping
    OnTopService.OnTopSetting onTop() {
        return service.setting();
    }

    @PutMapping
    OnTopService.OnTopSetting changeOnTop(@RequestBody OnTopService.OnTopSetting s) {
        return service.change(new OnTopService.OnTopSetting(
                s.surcharge(),
                TypedMark.plain(s.percent()),
                TypedMark.plain(s.fixed()),
                TypedMark.plain(s.most()),
                s.tax(),
                s.tips(),
                s.given(),
                s.free(),
                s.version()));
    }
}
