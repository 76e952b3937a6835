package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"shoal/internal/audiofile"
	"shoal/internal/demo"
	"shoal/internal/server"
	"shoal/internal/store"
)

type place struct {
	addr, data string
	keep       int64 // bytes
}

func (p *place) flags(c *cobra.Command) {
	c.Flags().StringVar(&p.addr, "addr", "127.0.0.1:4680", "address to listen on; loopback only, port 0 takes a free one")
	c.Flags().StringVar(&p.data, "data", "data", "folder for the database and the audio")
	c.Flags().Int64Var(&p.keep, "keep-free", 256<<20, "bytes of the disk that recordings leave free")
}

// lean keeps the memory of whatever renders whole songs near what it holds: most of that is sound, which costs nothing to
// look through. Who sets GOGC knows better.
func lean() {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(15)
	}
}

func serveCommand() *cobra.Command {
	var p place
	c := &cobra.Command{
		Use: "serve", Short: "Serve the web application", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return serve(c.Context(), c.OutOrStdout(), p, false, false) },
	}
	p.flags(c)
	return c
}

func demoCommand() *cobra.Command {
	var p place
	var only bool
	c := &cobra.Command{
		Use: "demo", Short: "Serve with the demo project, which is made if it is not there", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return serve(c.Context(), c.OutOrStdout(), p, true, only) },
	}
	p.flags(c)
	c.Flags().BoolVar(&only, "make-only", false, "make the demo project and stop")
	return c
}

func serve(ctx context.Context, out io.Writer, p place, withDemo, makeOnly bool) error {
	lean()
	private()
	host, _, err := net.SplitHostPort(p.addr)
	if err != nil {
		return fmt.Errorf("address %q: %w", p.addr, err)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return fmt.Errorf("address %q is not on loopback; until there are accounts Shoal is for this machine only", p.addr)
	}
	held, err := take(p.data) // first of all: nothing of a folder that is somebody else's is touched
	if err != nil {
		return err
	}
	defer held.free()
	var l net.Listener
	if !makeOnly {
		if l, err = net.Listen("tcp", p.addr); err != nil {
			return fmt.Errorf("listen: %w (choose another port with --addr 127.0.0.1:PORT)", err)
		}
		defer l.Close()
		if err := held.says(fmt.Sprintf("the Shoal at http://%s (process %d)", l.Addr(), os.Getpid())); err != nil {
			return err
		}
	}
	tmp := filepath.Join(p.data, "tmp")
	if err := os.RemoveAll(tmp); err != nil {
		return fmt.Errorf("clear %s: %w", tmp, err)
	}
	if err := os.MkdirAll(tmp, 0o700); err != nil {
		return fmt.Errorf("make data folder: %w", err)
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelWarn}))
	slog.SetDefault(log)
	st, err := store.Open(ctx, p.data)
	if err != nil {
		return err
	}
	defer st.Close()
	folder, err := audiofile.NewFolder(filepath.Join(p.data, "audio"))
	if err != nil {
		return err
	}
	if withDemo {
		if err := makeDemo(ctx, out, st, folder, makeOnly); err != nil {
			return err
		}
		if makeOnly {
			return nil
		}
	}
	srv, err := server.New(ctx, st, folder, filepath.Join(p.data, "exports"), tmp, filepath.Join(p.data, "recordings"), log)
	if err != nil {
		return err
	}
	srv.KeepFree(p.keep)
	path := "/"
	if withDemo {
		path = "/project/" + demo.ID
	}
	fmt.Fprintf(out, "Shoal is ready: http://%s%s\n", l.Addr(), path)
	return listen(ctx, l, srv)
}

// private lets nobody else on this machine read what this process writes: folders are 0700 and files 0600.
func private() { syscall.Umask(0o077) }

// How long a request that is under way is waited for when Shoal is to end, and how long work behind the music has to lay down
// what it is at: both begin anew with the next start.
const (
	lastRequests = 400 * time.Millisecond
	lastWorks    = 400 * time.Millisecond
)

// listen serves until the context ends. A body that stands still is given up by the server itself (see patience.go of the server).
func listen(ctx context.Context, l net.Listener, srv *server.Server) error {
	h := &http.Server{Handler: srv, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10}
	gone := make(chan error, 1)
	go func() { gone <- h.Serve(l) }()
	select {
	case err := <-gone:
		return err
	case <-ctx.Done():
	}
	last, cancel := context.WithTimeout(context.Background(), lastRequests)
	defer cancel()
	if h.Shutdown(last) != nil {
		_ = h.Close() // what is still half sent
	}
	end, cancel := context.WithTimeout(context.Background(), lastWorks)
	defer cancel()
	if err := srv.Close(end); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return nil
}

// makeDemo makes the demo, if it is not there, and says how far it is; with all also what a server would do behind the music.
func makeDemo(ctx context.Context, out io.Writer, st *store.Store, folder *audiofile.Folder, all bool) error {
	var begun time.Time
	err := demo.Add(ctx, st, folder, all, func(part float64) {
		if begun.IsZero() {
			begun = time.Now()
			fmt.Fprintln(out, "Making the demo's sound:")
		}
		fmt.Fprintf(out, "\r  %3.0f %%", part*100)
	})
	if err == nil && !begun.IsZero() {
		fmt.Fprintf(out, "\r  done in %.0f s\n", time.Since(begun).Seconds())
	}
	return err
}
