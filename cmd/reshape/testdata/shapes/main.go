// Command shapes goes through every form of control flow that reshape must keep:
// loops in loops, switches, early returns, calls that wait, panics and recovery.
package main

import (
	"fmt"
	"os"
	"strings"
	"sync"
)

func main() {
	sieve(200)
	fmt.Println(collatz(27), classify(-3), classify(0), classify(7), classify(1000))
	fmt.Println(search([][]int{{1, 2}, {3, 4}, {5, 6}}, 4), search(nil, 1))
	fmt.Println(recovered(3), recovered(99))
	fmt.Println(waiting(50))
	fmt.Println(jumps(12), deep(2000))
	fmt.Println(closures()(5), strings.Repeat("ab", 3))
	if len(os.Args) > 99 {
		panic("never")
	}
}

func sieve(n int) {
	composite := make([]bool, n)
	for i := 2; i < n; i++ {
		if composite[i] {
			continue
		}
		for k := i * i; k < n; k += i {
			composite[k] = true
		}
		if i > 180 {
			fmt.Print(i, " ")
		}
	}
	fmt.Println()
}

func collatz(n int) (steps int) {
	for n != 1 {
		if n%2 == 0 {
			n /= 2
		} else {
			n = 3*n + 1
		}
		steps++
	}
	return steps
}

func classify(n int) string {
	switch {
	case n < 0:
		return "under"
	case n == 0:
		return "zero"
	case n < 10:
		s := "few"
		for range n {
			s += "."
		}
		return s
	}
	return "many"
}

func search(rows [][]int, want int) (at string) {
outer:
	for i, row := range rows {
		for j, v := range row {
			switch {
			case v > want:
				break outer
			case v == want:
				at = fmt.Sprint(i, j)
				continue outer
			}
		}
	}
	return at
}

func recovered(i int) (s string) {
	defer func() {
		if r := recover(); r != nil {
			s = fmt.Sprint("caught: ", r)
		}
	}()
	x := []int{1, 2, 3, 4}
	sum := 0
	for k := 0; k <= i; k++ {
		sum += x[k]
	}
	return fmt.Sprint(sum)
}

// waiting is put to sleep in the middle of loops and must go on there.
func waiting(n int) int {
	c, done := make(chan int), make(chan int)
	var wg sync.WaitGroup
	for k := range 4 {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for i := range n {
				if i%4 == k {
					c <- i * i
				}
			}
		}()
	}
	go func() { wg.Wait(); close(c) }()
	go func() {
		sum := 0
		for v := range c {
			if v%2 == 1 {
				sum += v
			} else {
				sum += 2 * v
			}
		}
		done <- sum
	}()
	return <-done
}

// jumps has a loop that is entered in its middle.
func jumps(n int) (out string) {
	i := 0
	if n%2 == 0 {
		goto odd
	}
even:
	out += "e"
	i++
	if i > n {
		return out
	}
odd:
	out += "o"
	i += 2
	if i <= n {
		goto even
	}
	return out
}

// deep makes the stack grow.
func deep(n int) int {
	var room [64]int
	if n == 0 {
		return 1
	}
	room[n%64] = deep(n - 1)
	return room[n%64] + n%3
}

func closures() func(int) int {
	total := 0
	var f func(int) int
	f = func(n int) int {
		if n == 0 {
			return total
		}
		total += n
		return f(n - 1)
	}
	return f
}
