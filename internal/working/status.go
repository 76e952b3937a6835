package working

// Status is how something that is worked out stands, for those who watch it: for clips, or of a row as far as its line.
type Status struct {
	Key      string   `json:"key" required:"true"`
	Clips    []string `json:"clips" required:"true"`
	Row      string   `json:"row,omitempty"`                                                            // whose print it is
	State    string   `json:"state" required:"true" enum:"waiting,running,done,failed,cancelled,asked"` // asked: only when somebody asks
	Progress float64  `json:"progress" required:"true"`
	Error    string   `json:"error,omitempty"`
	// Frames is how long the result is, and Lead how much of it lies before what comes of the clip's extent.
	Frames int64 `json:"frames" required:"true"`
	Lead   int64 `json:"lead" required:"true"`
}

// States of what is worked out.
const (
	Waiting   = "waiting"
	Running   = "running"
	Done      = "done"
	Failed    = "failed"
	Cancelled = "cancelled"
	WhenAsked = "asked"
)

func (d *Desk) statuses(w *watched) []Status {
	list := []Status{}
	for _, n := range w.needs {
		s := n.status()
		switch {
		case w.done[n.Key]:
			s.State, s.Progress = Done, 1
		case w.failed[n.Key] != "":
			s.State, s.Error = Failed, w.failed[n.Key]
		case w.called[n.Key]:
			s.State = Cancelled
		case d.now == n.Key:
			s.State, s.Progress = Running, d.progress
		case n.whenAsked && !w.asked[n.Key]:
			s.State = WhenAsked
		}
		list = append(list, s)
	}
	return list
}

// status is how something stands that nobody has begun.
func (n Need) status() Status {
	s := Status{Key: n.Key, Clips: []string{}, State: Waiting}
	if n.line != nil {
		s.Row, s.Frames = n.line.Row, n.line.Frames()
		return s
	}
	s.Clips, s.Frames, s.Lead = n.Clips, n.work.Frames(), n.work.Lead
	return s
}
