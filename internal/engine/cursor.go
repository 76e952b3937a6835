package engine

// cursor is where a plan stands in the song.
type cursor struct {
	frame   int64 // at lag 0; runs on while stopped, as the effects' own time
	hold    int64 // where the song stands while it is not rolling
	rolling bool
	jumped  bool // frame does not follow from the block before
	loopOn  bool
	from    int64 // of the loop
	to      int64
	wrapped bool // the frames before from were those before to
}

// songFrame is the song frame at frame i of the block for a node so late.
func (c *cursor) songFrame(lag, i int) int64 {
	f := c.frame + int64(i) - int64(lag)
	if c.wrapped && f < c.from {
		f += c.to - c.from
	}
	return f
}

// advance moves on by n frames, of which none may pass the loop's end.
func (c *cursor) advance(n int) {
	c.frame += int64(n)
	c.jumped = false
	if !c.rolling {
		return
	}
	if c.loopOn && c.frame == c.to {
		c.frame, c.wrapped = c.from, true
	}
}

// room cuts a block at the loop's end and at the 128-frame grid of the song.
func (c *cursor) room(n int) int {
	n = min(n, Block-int(c.frame&(Block-1)))
	if c.rolling && c.loopOn && c.frame < c.to {
		n = min(n, int(c.to-c.frame))
	}
	return n
}
