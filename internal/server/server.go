// Package server is the web server: routes, people, the live connection, and
// the front end. It holds no rules of the job; those are below it.
package server

import (
	"context"
	"embed"
	"io/fs"
	"log/slog"
	"net/http"
	"sync"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/recording"
	"shoal/internal/store"
	"shoal/internal/working"
)

//go:embed all:site
var siteFiles embed.FS

// MaxUpload is the largest file that can be imported.
const MaxUpload = 4 << 30

// Server answers requests for one data folder.
type Server struct {
	store  *store.Store
	folder *audiofile.Folder
	hub    *hub
	desk   *desk
	prints *printing.Works
	works  *working.Desk
	// recordings are what windows record.
	recordings *recording.Desk
	// drawing has room for the one outline that is made.
	drawing chan struct{}
	// stopWorks ends the working out: it begins anew after the next start.
	stopWorks context.CancelFunc
	tmp       string
	stocking  sync.Mutex   // what ships on the shelf is made once
	making    sync.Mutex   // and so is the demo
	demoPart  atomic.Value // a float64: how far it is
	charts    charts
	// house is there where others come in over the network; nil: this machine only.
	house *house
	http  *gin.Engine
	count *prometheus.CounterVec
}

// New prepares a server. tmp is a folder for uploads under way, tapes one for what is being recorded.
func New(ctx context.Context, st *store.Store, folder *audiofile.Folder, exports, tmp, tapes string, log *slog.Logger) (*Server, error) {
	s := &Server{
		store: st, folder: folder, hub: newHub(), tmp: tmp, drawing: make(chan struct{}, 1), charts: charts{all: map[string]drawn{}},
	}
	s.desk = newDesk(st, folder, s.hub)
	if err := folder.TrimWorked(working.Kept); err != nil {
		return nil, err
	}
	until, stop := context.WithCancel(ctx)
	s.stopWorks = stop
	s.works = newWorks(until, folder, s.desk, s.hub)
	s.desk.works = s.works
	var err error
	if s.prints, err = printing.New(ctx, st, folder, exports, s.desk, log); err != nil {
		return nil, err
	}
	if s.recordings, err = recording.New(tapes, folder, s.desk, s.keepSound); err != nil {
		return nil, err
	}
	reg := prometheus.NewRegistry()
	s.count = prometheus.NewCounterVec(
		prometheus.CounterOpts{Name: "shoal_requests_total", Help: "Requests answered, by route and status."},
		[]string{"route", "status"},
	)
	reg.MustRegister(
		s.count,
		prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: "shoal_windows", Help: "Windows open on projects."}, s.hub.windows),
	)
	gin.SetMode(gin.ReleaseMode)
	s.http = gin.New()
	s.http.HandleMethodNotAllowed = true
	s.http.Use(recovery, s.headers, patient)
	s.http.GET("/metrics", s.keepersOnly, gin.WrapH(promhttp.HandlerFor(reg, promhttp.HandlerOpts{})))
	s.http.GET(authorityPath, s.authority)
	s.routes()
	site, err := fs.Sub(siteFiles, "site")
	if err != nil {
		return nil, err
	}
	s.http.NoRoute(serveSite(site))
	s.http.NoMethod(noMethod)
	go s.recordings.Work(until)
	err = s.prints.Start(ctx)
	if full(err) { // who listens need not wait until there is room for prints
		log.Error("the disk is full: prints wait, and nothing can be changed until there is room", "error", err)
		go s.printWhenRoom(until, ctx)
		return s, nil
	}
	return s, err
}

// printWhenRoom starts the print works as soon as the disk has room for them.
func (s *Server) printWhenRoom(until, ctx context.Context) {
	again := time.NewTicker(2 * time.Second)
	defer again.Stop()
	for {
		select {
		case <-until.Done():
			return
		case <-again.C:
		}
		err := s.prints.Start(ctx)
		if err == nil {
			return
		}
		if !full(err) {
			slog.Error("the print works cannot start", "error", err)
			return
		}
	}
}

// Close stops the print works; running prints start again next time.
func (s *Server) Close(ctx context.Context) error {
	s.stopWorks()
	return s.prints.Stop(ctx)
}

// ServeHTTP answers a request.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.http.ServeHTTP(w, r) }
