/** What every request passes before anything else: where it comes from, how much it may send, how often. */
package quill.server.edge;
