package quill.server.lists;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Views of lists that are kept under a name, over HTTP. */
@RestController
@RequestMapping("/api/views")
class ViewsController {
    private final KeptViews views;

    ViewsController(KeptViews views) {
        this.views = views;
    }

    record KeepView(String place, String name, String shows) {}

    @GetMapping
    List<KeptViews.KeptView> views(@RequestParam String place) {
        return views.of(place);
    }

    @PostMapping
    void keep(@RequestBody KeepView view) {
        views.keep(view.place(), view.name(), view.shows());
    }

    @DeleteMapping("/{id}")
    void forget(@PathVariable long id) {
        views.forget(id);
    }
}
