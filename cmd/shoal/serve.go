package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log"
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
	"shoal/internal/certificate"
	"shoal/internal/demo"
	"shoal/internal/server"
	"shoal/internal/store"
)

type place struct {
	addr, data string
	keep       int64 // bytes
	network
}

func (p *place) flags(c *cobra.Command) {
	c.Flags().StringVar(&p.addr, "addr", "127.0.0.1:4680",
		"address to listen on, port 0 takes a free one; beyond loopback with HTTPS and accounts")
	c.Flags().StringVar(&p.certFile, "cert", "", "certificate (PEM) to be known by over the network; without one Shoal makes its own")
	c.Flags().StringVar(&p.keyFile, "key", "", "the key of the certificate (PEM)")
	c.Flags().StringSliceVar(&p.names, "name", nil, "another name or address by which this machine is reached; as often as needed")
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
	own, err := onLoopback(p.addr)
	if err != nil {
		return err
	}
	held, err := take(p.data) // first of all: nothing of a folder that is somebody else's is touched
	if err != nil {
		return err
	}
	defer held.free()
	var l net.Listener
	var m *certificate.Machine
	at := ""
	if !makeOnly {
		if l, err = net.Listen("tcp", p.addr); err != nil {
			return fmt.Errorf("listen: %w (choose another port with --addr 127.0.0.1:PORT)", err)
		}
		defer l.Close()
		at = "http://" + l.Addr().String()
		if !own {
			if m, err = p.machine(p.data, p.addr); err != nil {
				return err
			}
			at = reached(m, l)
		}
		if err := held.says(fmt.Sprintf("the Shoal at %s (process %d)", at, os.Getpid())); err != nil {
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
	logger := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelWarn}))
	slog.SetDefault(logger)
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
	srv, err := server.New(ctx, st, folder, filepath.Join(p.data, "exports"), tmp, filepath.Join(p.data, "recordings"), logger)
	if err != nil {
		return err
	}
	srv.KeepFree(p.keep)
	path := "/"
	if withDemo {
		path = "/project/" + demo.ID
	}
	if m != nil {
		if err := open(ctx, out, srv, st, m, at); err != nil {
			return err
		}
	}
	fmt.Fprintf(out, "Shoal is ready: %s%s\n", at, path)
	return listen(ctx, l, srv, m, at)
}

// private lets nobody else on this machine read what this process writes: folders are 0700 and files 0600.
func private() { syscall.Umask(0o077) }

// How long a request that is under way is waited for when Shoal is to end, and how long work behind the music has to lay down
// what it is at: both begin anew with the next start.
const (
	lastRequests = 400 * time.Millisecond
	lastWorks    = 400 * time.Millisecond
)

// listen serves until the context ends: over TLS where there is a certificate, with the way there for who comes without. A body that
// stands still is given up by the server itself (see patience.go of the server).
func listen(ctx context.Context, l net.Listener, srv *server.Server, m *certificate.Machine, at string) error {
	if m == nil {
		return until(ctx, srv, []serving{{httpServer(srv), l}})
	}
	s := newSplit(l)
	go s.run()
	return until(ctx, srv, []serving{{httpServer(srv), overTLS(s.tls, m)}, {httpServer(wayIn(m, at)), s.plain}})
}

// serving is a server and what it listens to.
type serving struct {
	http *http.Server
	l    net.Listener
}

func httpServer(h http.Handler) *http.Server {
	return &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10,
		ErrorLog: log.New(io.Discard, "", 0)} // handshakes that break off are no matter for the log
}

func until(ctx context.Context, srv *server.Server, all []serving) error {
	gone := make(chan error, len(all))
	for _, s := range all {
		go func() { gone <- s.http.Serve(s.l) }()
	}
	select {
	case err := <-gone:
		return err
	case <-ctx.Done():
	}
	last, cancel := context.WithTimeout(context.Background(), lastRequests)
	defer cancel()
	for _, s := range all {
		if s.http.Shutdown(last) != nil {
			_ = s.http.Close() // what is still half sent
		}
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
